"""Lines of the value card for the years after: what is done again when, and what may not be passed while it runs."""

from dataclasses import replace

from .hub_lines import MAY_GRIP
from .kind import COUPLING_PAPER, ValueKind, figure

UNIT_PAPER = "the gear unit's installation manual"
GREASE_PAPER = "the coupling's manual, by the kind of grease"
SITE_RULE = "the site's own rule, or the maker's manual"


def months(key: str, title: str, look_in: str) -> ValueKind:
    """Months of the calendar between one time and the next."""
    return figure(key, title, "months", look_in, 0.25, 240)


def hours(key: str, title: str, look_in: str) -> ValueKind:
    """Hours of running between one time and the next."""
    return figure(key, title, "h", look_in, 1, 200_000)


def of_each_grease(kind: ValueKind) -> ValueKind:
    """An interval that may be another one for another product."""
    return replace(kind, by_material=True, by_what="grease product")


KEEP_LINES = (
    hours("retorque_hours", "First pulled again after running for", COUPLING_PAPER),
    months("retorque_months", "Bolts of the coupling pulled again every", COUPLING_PAPER),
    of_each_grease(months("grease_months", "Greased again every", GREASE_PAPER)),
    of_each_grease(hours("grease_hours", "Greased again after running for", GREASE_PAPER)),
    months("first_inspection_months", "First inspection after", COUPLING_PAPER),
    months("inspection_months", "Looked over every", SITE_RULE),
    months("play_months", "Wear and play read at rest every", COUPLING_PAPER),
    figure("round_days", "Round while it runs, every", "days", SITE_RULE, 1, 400),
    months("closed_check_months", "Measured closed every", SITE_RULE),
    months("alignment_months", "Alignment read every", SITE_RULE),
    figure("packing_days", "Packing nuts followed up every", "days", UNIT_PAPER, 1, 400),
    figure("packing_total_deg", "Packing rings renewed once the nuts were turned by", "°", UNIT_PAPER, 30, 10_000),
    months("oil_months", "Oil of the gear unit changed every", UNIT_PAPER),
    hours("oil_hours", "Oil of the gear unit changed after running for", UNIT_PAPER),
    figure("coupling_temperature_c", "Temperature of the coupling or bearing as it runs, at most", "°C", SITE_RULE, 10, 300),
    figure("vibration_mm_per_s", "Vibration as it runs, at most", "mm/s", SITE_RULE, 0.1, 200),
)
ALWAYS = (  # any line may be given these
    MAY_GRIP,
    "first_inspection_months",
    "inspection_months",
    "round_days",
    "coupling_temperature_c",
    "vibration_mm_per_s",
)
