from __future__ import annotations

from typing import Any

from ausblick.core.plan import Change, Plan, apply_changes, merge, plan_from


def start() -> Plan:
    lights = [{"id": "a", "name": "left panel"}, {"id": "b", "name": "right panel"}, {"id": "c", "role": "key"}]
    return plan_from({"format": "ausblick-plan", "version": 1, "lights": lights})


def after(plan: Plan, **changes: Any) -> Plan:
    return apply_changes(plan, [Change(path.replace("__", "."), value) for path, value in changes.items()])


def with_lights(plan: Plan, *names: str, **more: dict[str, Any]) -> Plan:
    data = plan.model_dump(mode="json")
    data["lights"] = [one for one in data["lights"] if one["id"] in names] + [
        {"id": name, **lamp} for name, lamp in more.items()
    ]
    return plan_from(data)


def test_changes_of_different_fields_come_together() -> None:
    was = start()
    merged = merge(was, after(was, camera__iso=200, screen__width=3.5), after(was, title="Vault"))
    assert merged.collisions == ()
    assert (merged.plan.camera.iso, merged.plan.screen.width, merged.plan.title) == (200, 3.5, "Vault")


def test_a_lamp_is_the_same_lamp_wherever_it_stands_in_the_list() -> None:
    was = start()
    mine = apply_changes(was, [Change("lights[2].dimmer", 0.4)])
    merged = merge(was, mine, with_lights(was, "b", "c"))
    assert merged.collisions == ()
    assert [(one.id, one.dimmer) for one in merged.plan.lights] == [("b", 1.0), ("c", 0.4)]


def test_lamps_added_on_both_sides_under_one_name_stay_two() -> None:
    was = start()
    mine = with_lights(was, "a", "b", "c", l1={"name": "rim"})
    theirs = with_lights(was, "a", "b", "c", l1={"name": "floor panel"})
    merged = merge(was, mine, theirs)
    assert merged.collisions == ()
    assert [one.name for one in merged.plan.lights][3:] == ["floor panel", "rim"]
    assert len({one.id for one in merged.plan.lights}) == 5


def test_one_field_changed_twice_collides_with_both_values_and_keeps_the_rest() -> None:
    was = start()
    merged = merge(was, after(was, subject__z=2.0, camera__iso=200), after(was, subject__z=2.6, title="Vault"))
    assert [(one.path, one.mine, one.theirs) for one in merged.collisions] == [("subject.z", 2.0, 2.6)]
    assert merged.plan.subject is not None
    assert (merged.plan.subject.z, merged.plan.camera.iso, merged.plan.title) == (2.0, 200, "Vault")


def test_a_lamp_taken_away_and_changed_collides() -> None:
    was = start()
    merged = merge(was, with_lights(was, "a", "b"), apply_changes(was, [Change("lights[2].dimmer", 0.4)]))
    (one,) = merged.collisions
    assert (one.path, one.mine, one.theirs["dimmer"]) == ("lights[c]", None, 0.4)


def test_what_breaks_the_document_together_collides_as_a_whole() -> None:
    was = start()
    mine = with_lights(was, "a", "b", "c", **{f"m{i}": {} for i in range(20)})
    theirs = with_lights(was, "a", "b", "c", **{f"t{i}": {} for i in range(20)})
    merged = merge(was, mine, theirs)
    assert [one.path for one in merged.collisions] == [""]
    assert merged.plan == mine
