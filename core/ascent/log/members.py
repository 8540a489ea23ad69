"""The parts of a support as people count them: ‘post 3’ is the third from the start of the row."""

from __future__ import annotations

from ..path.geometry import Geometry, Member, Role

CALLED: dict[str, Role] = {
    "post": "post",
    "pole": "post",
    "stake": "post",
    "cane": "post",
    "leg": "post",
    "anchor": "anchor",
    "guy": "guy",
    "strut": "strut",
    "wire": "wire",
    "rail": "rail",
    "string": "string",
    "tie": "tie",
    "hoop": "arm",
    "arm": "arm",
    "cage": "ring",
    "panel": "panel",
    "mesh": "mesh",
}


def counted(geometry: Geometry, role: Role) -> list[Member]:
    """Return the members of a role from the start of the row, those at one place from the ground up."""
    own = [member for member in geometry.members if member.role == role]
    return sorted(own, key=lambda member: tuple(round(x, 3) for x in min(member.points)))


def member_called(geometry: Geometry, word: str, number: int) -> Member | None:
    """Return the member that a word and a number from 1 name, nothing where there is none."""
    role = CALLED.get(word)
    own = counted(geometry, role) if role else []
    return own[number - 1] if 0 < number <= len(own) else None


def name_of(geometry: Geometry, key: str) -> str:
    """Return what a member is called, as it is counted; its key where it is not there any more."""
    member = next((member for member in geometry.members if member.key == key), None)
    if member is None:
        return key
    word = next((word for word, role in CALLED.items() if role == member.role), member.role)
    return f"{word} {counted(geometry, member.role).index(member) + 1}"
