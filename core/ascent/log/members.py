"""The parts of a support as people count them: ‘post 3’ is the third from the start of the row."""

from __future__ import annotations

from ..errors import InvalidPlan, Problem
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

CALLED_BY: dict[Role, str] = {role: word for word, role in reversed(CALLED.items())}


def counted(geometry: Geometry, role: Role) -> list[Member]:
    """Return the members of a role from the start of the row, those at one place from the ground up."""
    own = [member for member in geometry.members if member.role == role]
    return sorted(own, key=lambda member: tuple(round(x, 3) for x in min(member.points)))


def member_called(geometry: Geometry, word: str, number: int) -> Member | None:
    """Return the member that a word and a number from 1 name, nothing where there is none."""
    role = CALLED.get(word)
    own = counted(geometry, role) if role else []
    return own[number - 1] if 0 < number <= len(own) else None


def key_called(geometry: Geometry, text: str) -> str:
    """Return the key of the member that a text names, as ‘post 3’; a text without a space is a key.

    Raises:
        InvalidPlan: There is no such part.
    """
    word, _, number = text.strip().lower().partition(" ")
    if not number:
        return text
    member = member_called(geometry, word, int(number)) if number.isdigit() else None
    if member is None:
        role_words = {CALLED_BY[member.role] for member in geometry.members if member.role in CALLED_BY}
        allowed = (
            f"a part counted from the start of the row is allowed, of these: {', '.join(sorted(role_words))}"
        )
        raise InvalidPlan([Problem("member", text, allowed)])
    return member.key


def name_of(geometry: Geometry, key: str) -> str:
    """Return what a member is called, as it is counted; its key where it is not there any more."""
    member = next((member for member in geometry.members if member.key == key), None)
    if member is None:
        return key
    word = CALLED_BY.get(member.role, member.role)
    return f"{word} {counted(geometry, member.role).index(member) + 1}"
