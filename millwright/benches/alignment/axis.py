"""An axis in space, as offset and slope at the coupling's middle."""

from dataclasses import dataclass


@dataclass(frozen=True, kw_only=True, slots=True)
class Line:
    """An axis in space: offset and slope at x = 0, upward and toward 3 o'clock."""

    offset_v_mm: float
    slope_v_mm_per_m: float
    offset_h_mm: float
    slope_h_mm_per_m: float

    def v_mm(self, x_mm: float) -> float:
        """Height at a place along the shaft."""
        return self.offset_v_mm + self.slope_v_mm_per_m * x_mm / 1000

    def h_mm(self, x_mm: float) -> float:
        """Sideways place, + toward 3 o'clock."""
        return self.offset_h_mm + self.slope_h_mm_per_m * x_mm / 1000

    def less(self, other: "Line") -> "Line":
        """This axis seen from another one."""
        return self.plus(other, -1.0)

    def plus(self, other: "Line", times: float = 1.0) -> "Line":
        """This axis with another one's offsets and slopes added."""
        return Line(
            offset_v_mm=self.offset_v_mm + times * other.offset_v_mm,
            slope_v_mm_per_m=self.slope_v_mm_per_m + times * other.slope_v_mm_per_m,
            offset_h_mm=self.offset_h_mm + times * other.offset_h_mm,
            slope_h_mm_per_m=self.slope_h_mm_per_m + times * other.slope_h_mm_per_m,
        )
