"""Usual physical constants of the metals a shaft line is made of; the maker's figures go before them."""

from typing import Literal, NamedTuple

Material = Literal["steel", "cast iron", "stainless steel", "aluminium", "bronze"]


class Metal(NamedTuple):
    """Constants at workshop heat."""

    expansion_per_k: float
    density_kg_m3: float
    specific_heat_j_kg_k: float


METALS: dict[Material, Metal] = {
    "steel": Metal(11.5e-6, 7850.0, 480.0),
    "cast iron": Metal(10.5e-6, 7200.0, 500.0),
    "stainless steel": Metal(16.5e-6, 7900.0, 500.0),
    "aluminium": Metal(23.5e-6, 2700.0, 900.0),
    "bronze": Metal(18.0e-6, 8700.0, 380.0),
}
