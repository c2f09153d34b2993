"""Changes of a set that rules and searches propose. A lamp, the mark or the camera is only ever moved from here."""

from .camera_moved import aperture_by, filtered_by, raised_camera, same_framing
from .hidden_display import hidden_share, out_of_the_way
from .lamps_moved import (
    aimed_across,
    all_alike,
    beside_the_action,
    clear_of_walls,
    further_back,
    gridded,
    half_height,
    hung,
    nearer,
    off_the_wall,
    on_circuit,
    out_of_picture,
    partner,
    raised,
    screen_lamps,
    softened,
    turned_round,
)
from .mark_moved import companions_along, mark_forward, mark_to, mark_to_school
from .more_screen import Needed, larger_screen
from .pane_moves import film_on_pane, inside_lifted
from .places import BEHIND_CAMERA, Place, all_inside, camera_inside, lamp_to, stand_inside
from .surfaces_changed import black_cloth, dimmed_screen, dulled_metal, less_floor, smaller_screen

__all__ = [
    "BEHIND_CAMERA",
    "Needed",
    "Place",
    "aimed_across",
    "all_alike",
    "all_inside",
    "aperture_by",
    "beside_the_action",
    "black_cloth",
    "camera_inside",
    "clear_of_walls",
    "companions_along",
    "dimmed_screen",
    "dulled_metal",
    "film_on_pane",
    "filtered_by",
    "further_back",
    "gridded",
    "half_height",
    "hidden_share",
    "hung",
    "inside_lifted",
    "lamp_to",
    "larger_screen",
    "less_floor",
    "mark_forward",
    "mark_to",
    "mark_to_school",
    "nearer",
    "off_the_wall",
    "on_circuit",
    "out_of_picture",
    "out_of_the_way",
    "partner",
    "raised",
    "raised_camera",
    "same_framing",
    "screen_lamps",
    "smaller_screen",
    "softened",
    "stand_inside",
    "turned_round",
]
