"""Benches that families have in common: close-fit bolts drawn in hole by hole, grease filled in hole by hole."""

from typing import Any

from ..benches.fitted import Way
from ..card.values import source_of
from ..meaning import Meaning, Of
from ..say import say
from ..sketch import discs
from ..verdict import Judged, said_by_hand
from .circles import line_of
from .families.facts import COUNT
from .fields import number
from .hints import GreaseHints
from .procedure import Bench
from .steps import Answers, BenchForm, JobFacts

PACKED = "packed_g"
PACKED_AT = ("couple.teeth", "couple.close")
weighed = number(PACKED, "Grease laid on, weighed", "g", "counted to what is filled in afterwards", required=False)


def fill(key: str, title: str, why: str, *holes: float) -> Bench:
    """Grease through its holes, of the kind and in the amount of the card. ``holes`` - where they usually are, degrees."""

    def form(job: JobFacts) -> BenchForm:
        preset: dict[str, object] = {}
        if "grease_g" in job.card:
            preset |= {"wanted_grams": job.card["grease_g"].value, "wanted_source": source_of(job.card, "grease_g")}
        if "grease_product" in job.card:
            preset["wanted_product"] = job.card["grease_product"].means
            preset["wanted_source"] = source_of(job.card, "grease_product")
        packed = [answers.get(PACKED) for step, answers in job.answers.items() if step in PACKED_AT]
        if total := sum(grams for grams in packed if isinstance(grams, int | float)):
            preset["packed_grams"] = total
        if "filled" in job.card:
            preset["routine"] = job.card["filled"].means
        return BenchForm(bench="grease", preset=preset, suggest=GreaseHints(holes=list(holes)))

    return Bench(
        key=key,
        title=title,
        why=why,
        means=(Meaning(of=Of.GREASE),),
        tool="grease gun, the grease the maker names",
        caution="Filled from above it looks full and is not.",
        form=form,
        judged_by=("grease_product", "grease_g", "filled"),
        on_fail=lambda job: "Another grease does not mix: all of it out and washed, or the lead says why.",
    )


def judge_product(job: JobFacts, answers: Answers) -> Judged:
    """The grease that goes in first is the card's, as it is when the rest is filled in: two kinds do not mix."""
    product = str(answers.get("product") or "").strip()
    if not product or "grease_product" not in job.card:
        return [], []
    wanted, source = job.card["grease_product"].means, source_of(job.card, "grease_product")
    is_it = product.casefold() == wanted.strip().casefold()
    check = said_by_hand("product", f"grease: {product}", f"{wanted}: {source}", in_order=is_it)
    text = "{product} is not {wanted}: wiped off again before anything is laid on it, or the lead says why."
    return [check], [] if is_it else [say("another_grease", text, product=product, wanted=wanted)]


def draw_in(key: str, title: str, circle: str) -> Bench:
    """Close-fit bolts of a circle, hole by hole."""
    return Bench(
        key=key,
        title=title,
        why="In two stages: bare first, then with its ring, until the head seats. A bolt that is driven is spoiled.",
        tool="spanners, soft hammer only for the pack",
        caution="A ring in the first draw-in jams the bolt; a ring that is forgotten lets the joint settle.",
        on_fail=lambda job: "Hard to draw: back it out, shift the pack, start again by hand.",
        **_on_the_map(circle, "in"),
    )


def tap_out(key: str, title: str, circle: str) -> Bench:
    """Close-fit bolts of a circle taken out, hole by hole, each kept with its hole."""
    return Bench(
        key=key,
        title=title,
        why="Nuts one after another, rings into their box, then each bolt by its end. A bolt that is driven is spoiled.",
        tool="spanners, soft drift, soft hammer; a marked box",
        caution="The spacer drops when the last bolt leaves: its weight hangs on the sling.",
        on_fail=lambda job: "It sits fast: oil, wait, tap again softly at its end. No heat near the pack.",
        **_on_the_map(circle, "out"),
    )


def _on_the_map(circle: str, way: Way) -> dict[str, Any]:
    def line(job: JobFacts) -> str:
        return line_of(job, job.family.circle(circle), COUNT)

    def form(job: JobFacts) -> BenchForm:
        known = {"bolts": round(job.card[line(job)].value)} if line(job) in job.card else {}
        return BenchForm(bench="fitted", preset={**known, "way": way})

    return {
        "form": form,
        "needs": lambda job: (line(job),),
        "sketch": lambda job: discs.fitted_bolt(),
        "may_authorise": False,
    }
