"""How is equipment entered, checked, claimed, and held against the catalogue?"""

from hextan.core.documents import catalogue
from hextan.core.documents.answers import BodySheet
from hextan.core.documents.body import (
    BODY_SCHEMA,
    MOST_FORMATS,
    BodyDocument,
    FormatDocument,
    MenuWords,
    ModeDocument,
    body_of,
    check_body,
    parse_body,
)
from hextan.core.documents.body_figures import UNKNOWN_MOUNT, body_sheet
from hextan.core.documents.claims import Home
from hextan.core.documents.lens_figures import lens_set_sheet
from hextan.core.documents.lens_set import (
    LENS_SET_SCHEMA,
    LensDocument,
    LensSetDocument,
    check_lens_set,
    lens_set_of,
    parse_lens_set,
)
from hextan.core.documents.rig import (
    RIG_SCHEMA,
    AdapterDocument,
    FilterDocument,
    MountDocument,
    RigDocument,
    adapter_of,
    check_rig,
    filter_of,
    mount_of,
    pair_notes_of,
    parse_rig,
    rig_sheet,
    with_rigs,
)

__all__ = [
    "BODY_SCHEMA",
    "LENS_SET_SCHEMA",
    "MOST_FORMATS",
    "RIG_SCHEMA",
    "UNKNOWN_MOUNT",
    "AdapterDocument",
    "BodyDocument",
    "BodySheet",
    "FilterDocument",
    "FormatDocument",
    "Home",
    "LensDocument",
    "LensSetDocument",
    "MenuWords",
    "ModeDocument",
    "MountDocument",
    "RigDocument",
    "adapter_of",
    "body_of",
    "body_sheet",
    "catalogue",
    "check_body",
    "check_lens_set",
    "check_rig",
    "filter_of",
    "lens_set_of",
    "lens_set_sheet",
    "mount_of",
    "pair_notes_of",
    "parse_body",
    "parse_lens_set",
    "parse_rig",
    "rig_sheet",
    "with_rigs",
]
