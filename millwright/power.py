"""Power, speed and torque of a shaft."""

import math

NM_RPM_PER_KW = 60_000 / (2 * math.pi)


def torque_nm(power_kw: float, speed_rpm: float) -> float:
    """The steady torque of a shaft that carries ``power_kw`` at ``speed_rpm``. Source: power is torque × angular speed.

    >>> round(torque_nm(37, 1480), 1)
    238.7
    """
    return NM_RPM_PER_KW * power_kw / speed_rpm
