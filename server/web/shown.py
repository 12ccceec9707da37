"""What answers are made of where there is much of it: read straight from attributes, without a look at each by Python."""

from pydantic import BaseModel, ConfigDict


class Shown(BaseModel):
    """A part of an answer. What is no plain attribute, a manager, a method, is worked out by whoever shows it."""

    model_config = ConfigDict(from_attributes=True)
