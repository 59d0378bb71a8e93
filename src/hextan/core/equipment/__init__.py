"""What does a production carry, what goes on what, how fast and how heavy is each format?"""

from hextan.core.equipment import package
from hextan.core.equipment.answers import Combination, KitVerdict, Limit, MapRect, Mounted, WindowMap
from hextan.core.equipment.data import DataAsk, cards_filled, copies_written, data_table
from hextan.core.equipment.house import house_reference, main_format, main_words, nearness, reference_words
from hextan.core.equipment.lens_setting import LensSetting, adapters_by_id
from hextan.core.equipment.mounting import Mounting, combinations, mounting_of, simplest, ways, why_not
from hextan.core.equipment.needs import lacking
from hextan.core.equipment.package import (
    Body,
    CropRule,
    FormatInPackage,
    InCameraCrop,
    Iris,
    Lens,
    LensOnBody,
    LensSet,
    Menu,
    Mount,
    MountAdapter,
    Package,
    PairNote,
    RecordingFormat,
    Rig,
    ScanMode,
)
from hextan.core.equipment.requests import evaluation_request, format_requests, reference_request
from hextan.core.equipment.settings import (
    SETTINGS_SCHEMA,
    Card,
    DeliveryFrame,
    MainFormat,
    PackageSettings,
    TradeWords,
    parse_settings,
)
from hextan.core.equipment.speed import Highest, highest_of, readout_fps, speed_table
from hextan.core.equipment.window_drawing import dark_of_rect, window_map

__all__ = [
    "SETTINGS_SCHEMA",
    "Body",
    "Card",
    "Combination",
    "CropRule",
    "DataAsk",
    "DeliveryFrame",
    "FormatInPackage",
    "Highest",
    "InCameraCrop",
    "Iris",
    "KitVerdict",
    "Lens",
    "LensOnBody",
    "LensSet",
    "LensSetting",
    "Limit",
    "MainFormat",
    "MapRect",
    "Menu",
    "Mount",
    "MountAdapter",
    "Mounted",
    "Mounting",
    "Package",
    "PackageSettings",
    "PairNote",
    "RecordingFormat",
    "Rig",
    "ScanMode",
    "TradeWords",
    "WindowMap",
    "adapters_by_id",
    "cards_filled",
    "combinations",
    "copies_written",
    "dark_of_rect",
    "data_table",
    "evaluation_request",
    "format_requests",
    "highest_of",
    "house_reference",
    "lacking",
    "main_format",
    "main_words",
    "mounting_of",
    "nearness",
    "package",
    "parse_settings",
    "readout_fps",
    "reference_request",
    "reference_words",
    "simplest",
    "speed_table",
    "ways",
    "why_not",
    "window_map",
]
