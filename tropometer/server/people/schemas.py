"""What the API says about people."""

from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import EmailStr, Field

Hand = Literal["right", "left"]
Units = Literal["cm", "in"]
School = Literal["loaded_shift", "centred", "lead_biased"]


class Me(Schema):
    id: UUID
    name: str
    email: str
    units: Units


class MeChange(Schema):
    units: Units


class StudentIn(Schema):
    name: str = Field(min_length=1, max_length=120)
    email: EmailStr | Literal[""] = ""
    hand: Hand
    stature_m: float | None = Field(None, ge=0.8, le=2.5)
    school: School = "loaded_shift"


class StudentOut(Schema):
    id: UUID
    name: str
    email: str
    hand: Hand
    stature_m: float | None
    school: School
