/** Written by ./hextan types from the tables of the core: change those. */
export const SHARP = [
  {
    "label": "diagonal / 1500",
    "coc": {
      "rule": "picture_diagonal",
      "divisor": 1500.0
    }
  },
  {
    "label": "diagonal / 1730",
    "coc": {
      "rule": "picture_diagonal",
      "divisor": 1730.0
    }
  },
  {
    "label": "0.025 mm",
    "coc": {
      "rule": "fixed",
      "mm": 0.025
    }
  },
  {
    "label": "0.0254 mm (0.001 in)",
    "coc": {
      "rule": "fixed",
      "mm": 0.0254
    }
  },
  {
    "label": "0.013 mm",
    "coc": {
      "rule": "fixed",
      "mm": 0.013
    }
  },
  {
    "label": "0.0127 mm (0.0005 in)",
    "coc": {
      "rule": "fixed",
      "mm": 0.0127
    }
  },
  {
    "label": "2 photosites",
    "coc": {
      "rule": "photosite",
      "factor": 2.0
    }
  },
  {
    "label": "1 delivered pixel",
    "coc": {
      "rule": "pixel",
      "factor": 1.0
    }
  },
  {
    "label": "the eye, 3 picture heights",
    "coc": {
      "rule": "eye",
      "arcmin": 1.0,
      "picture_heights": 3.0
    }
  }
] as const

export const SHARP_FIGURES = {
  "picture_diagonal": [
    "divisor"
  ],
  "fixed": [
    "mm"
  ],
  "photosite": [
    "factor"
  ],
  "pixel": [
    "factor"
  ],
  "eye": [
    "arcmin",
    "picture_heights"
  ]
} as const

export const PROJECTIONS = [
  "rectilinear",
  "equidistant",
  "equisolid",
  "stereographic",
  "orthographic"
] as const

export const CLASSES = [
  "large format",
  "65 mm",
  "8-perforation 35",
  "full frame",
  "Super 35",
  "APS-C",
  "four thirds",
  "1 inch",
  "Super 16",
  "2/3 inch"
] as const

export const SAMPLES = [
  "raw",
  "4:2:0",
  "4:2:2",
  "4:4:4"
] as const

export const FORMATS_OFFERED = [
  {
    "tick": "raw",
    "label": "the whole window, raw"
  },
  {
    "tick": "uhd",
    "label": "3840 x 2160"
  },
  {
    "tick": "dci4k",
    "label": "4096 x 2160"
  },
  {
    "tick": "hd",
    "label": "1920 x 1080"
  }
] as const

export const READY_REFERENCES = [
  {
    "name": "large format",
    "width_mm": 54.12,
    "height_mm": 25.58
  },
  {
    "name": "65 mm, 5 perforations",
    "width_mm": 52.48,
    "height_mm": 23.01
  },
  {
    "name": "8-perforation 35",
    "width_mm": 37.72,
    "height_mm": 24.92
  },
  {
    "name": "8-perforation 35, 17:9",
    "width_mm": 40.96,
    "height_mm": 21.6
  },
  {
    "name": "full frame in 16:9",
    "width_mm": 36.0,
    "height_mm": 20.25
  },
  {
    "name": "Super 35 in 16:9",
    "width_mm": 24.89,
    "height_mm": 14.0
  },
  {
    "name": "Super 35, 3 perforations",
    "width_mm": 24.89,
    "height_mm": 13.87
  },
  {
    "name": "35 mm, 2 perforations",
    "width_mm": 24.89,
    "height_mm": 9.35
  },
  {
    "name": "35 mm, 4 perforations for 2x",
    "width_mm": 21.95,
    "height_mm": 18.6
  },
  {
    "name": "35 mm, Academy",
    "width_mm": 21.95,
    "height_mm": 16.0
  },
  {
    "name": "half frame",
    "width_mm": 24.0,
    "height_mm": 18.0
  },
  {
    "name": "APS-C, 23.6 mm",
    "width_mm": 23.6,
    "height_mm": 15.6
  },
  {
    "name": "APS-C, 22.3 mm",
    "width_mm": 22.3,
    "height_mm": 14.9
  },
  {
    "name": "micro four thirds",
    "width_mm": 17.3,
    "height_mm": 13.0
  },
  {
    "name": "1 inch",
    "width_mm": 13.2,
    "height_mm": 8.8
  },
  {
    "name": "Super 16",
    "width_mm": 12.52,
    "height_mm": 7.41
  },
  {
    "name": "16 mm",
    "width_mm": 10.26,
    "height_mm": 7.49
  },
  {
    "name": "2/3 inch",
    "width_mm": 9.6,
    "height_mm": 5.4
  },
  {
    "name": "2/3 inch in 4:3",
    "width_mm": 8.8,
    "height_mm": 6.6
  }
] as const

export const SHOT_CELLS = [
  {
    "key": "name",
    "title": "Shot",
    "size": 5,
    "gloss": ""
  },
  {
    "key": "scene",
    "title": "Scene",
    "size": 14,
    "gloss": ""
  },
  {
    "key": "what",
    "title": "What",
    "size": 16,
    "gloss": ""
  },
  {
    "key": "height",
    "title": "Height",
    "size": 6,
    "gloss": "How tall whoever is framed is; 1.7 m where nobody says"
  },
  {
    "key": "day",
    "title": "Day",
    "size": 3,
    "gloss": ""
  },
  {
    "key": "unit",
    "title": "Unit",
    "size": 3,
    "gloss": ""
  },
  {
    "key": "framing",
    "title": "Framing",
    "size": 15,
    "gloss": "waist, 1.9 m wide, as 35 on Super 35 at 3 m, like 50"
  },
  {
    "key": "distance",
    "title": "Distance",
    "size": 8,
    "gloss": "3 m, 2-4 m, up to 5 m; free where it is empty"
  },
  {
    "key": "room",
    "title": "Room",
    "size": 7,
    "gloss": "From the subject to the wall behind the camera"
  },
  {
    "key": "nearest",
    "title": "Not nearer",
    "size": 7,
    "gloss": "For the sake of the perspective"
  },
  {
    "key": "speed",
    "title": "Speed",
    "size": 7,
    "gloss": "100, 4x slow, 25-100 for a ramp"
  },
  {
    "key": "deliveries",
    "title": "Delivered",
    "size": 12,
    "gloss": "Frames of Settings by their names, or 3840x2160"
  },
  {
    "key": "hold",
    "title": "Sharp",
    "size": 9,
    "gloss": "±30 cm, 2.5-4 m, deep"
  },
  {
    "key": "background",
    "title": "Background",
    "size": 9,
    "gloss": "How wide a point of light is drawn: 3 % at 8 m"
  },
  {
    "key": "stop",
    "title": "Stop",
    "size": 8,
    "gloss": "T2.8, T2-T4, up to T4"
  },
  {
    "key": "light",
    "title": "Light",
    "size": 10,
    "gloss": "200 lux, day, night, EI 400-1600"
  },
  {
    "key": "lamps",
    "title": "Lamps",
    "size": 8,
    "gloss": "50 Hz for the mains, pulsed 400 Hz"
  },
  {
    "key": "picture",
    "title": "Picture",
    "size": 14,
    "gloss": "raw, 12 bit, no binning, re-frame 20 %, stabiliser"
  },
  {
    "key": "rig",
    "title": "Rig",
    "size": 12,
    "gloss": "tripod, hand, gimbal 4.5 kg, no lens change"
  },
  {
    "key": "look",
    "title": "Look",
    "size": 8,
    "gloss": "spherical, 2x"
  },
  {
    "key": "body",
    "title": "Body",
    "size": 9,
    "gloss": "One body alone"
  },
  {
    "key": "glass",
    "title": "Lens",
    "size": 9,
    "gloss": "35, 24-70, 24-70 at 35, or a lens by its name"
  },
  {
    "key": "keep_out",
    "title": "Keep-out",
    "size": 7,
    "gloss": "The distance that whoever is responsible for safety has set"
  },
  {
    "key": "keep_out_by",
    "title": "Set by",
    "size": 14,
    "gloss": ""
  },
  {
    "key": "notes",
    "title": "Notes",
    "size": 24,
    "gloss": ""
  }
] as const

export const NEEDS = [
  "framing",
  "distance",
  "speed",
  "stop",
  "light",
  "hold",
  "background",
  "picture",
  "deliveries",
  "room",
  "nearest",
  "look",
  "rig",
  "body",
  "glass"
] as const

export const LAMPS = [
  "tungsten",
  "magnetic",
  "electronic",
  "pulsed",
  "steady"
] as const

export const MOVERS = [
  "nd",
  "ei",
  "light",
  "stop",
  "shutter"
] as const

export const HANDOVERS = [
  {
    "kind": "usd",
    "title": "USD cameras",
    "carries": "A camera for each set-up: apertures, focal length, f-stop, focus, squeeze and offsets, so that the picture is the finder's; people, lamps and posts at their places; the names of body, format, lens and adapters.",
    "lost": "A fisheye becomes a lens without distortion; light, ND and the rule for sharp are left out.",
    "back": "Set-ups, by their names, or by focal length and width of the picture. Only text layers (.usda); what they refer to is not followed, turned cameras look along the axis, things do not come back.",
    "reads": true
  },
  {
    "kind": "opentrackio",
    "title": "OpenTrackIO samples",
    "carries": "A sample for each set-up: sensor, raster, squeeze, rate, shutter, sensitivity, lens, focal length, stops, focus, entrance pupil, height of the camera. After the documented samples of the standard, from memory.",
    "lost": "The scene, the delivered picture, adapters (but under a key of our own).",
    "back": "Set-ups, from one sample, a list, or one in a line.",
    "reads": true
  },
  {
    "kind": "fdl",
    "title": "ASC FDL 2.0",
    "carries": "A context for each body, a canvas for each recording format and squeeze that the set-ups use, every delivered picture as a framing intent with its decision in each canvas, and a canvas template where its pixels are known.",
    "lost": "Lenses, distances, stops, rates.",
    "back": "Bodies, under Package, Bodies: an FDL knows no set-ups.",
    "reads": false
  }
] as const

export const SHEET_KINDS = [
  {
    "kind": "lens_by_format",
    "title": "Lens by format",
    "told": "Effective focal length, angle, coverage and the stop that compares in depth",
    "asks": [
      "lenses",
      "formats",
      "bodies"
    ],
    "wide": true
  },
  {
    "kind": "look",
    "title": "Look sheet",
    "told": "Finder pictures: lenses down, formats across, at a distance; or one lens at several",
    "asks": [
      "lenses",
      "formats",
      "distances",
      "focal",
      "unit"
    ],
    "wide": false
  },
  {
    "kind": "depth",
    "title": "Depth of field",
    "told": "Near and far for stops and distances, rounded inwards, a page for each lens or each distance",
    "asks": [
      "lenses",
      "formats",
      "distances",
      "stops",
      "focal",
      "each",
      "unit",
      "from_front"
    ],
    "wide": false
  },
  {
    "kind": "field",
    "title": "Field at a distance",
    "told": "Width and height, and from how far a person is framed",
    "asks": [
      "lenses",
      "formats",
      "distances",
      "focal",
      "unit",
      "from_front"
    ],
    "wide": false
  },
  {
    "kind": "formats",
    "title": "Formats of a body",
    "told": "Windows to scale, crops, rates, raster, codec, data, cards, needs, menu words",
    "asks": [
      "bodies",
      "formats"
    ],
    "wide": true
  },
  {
    "kind": "cards",
    "title": "Cards and storage",
    "told": "Minutes on each card and what a day takes",
    "asks": [
      "bodies",
      "formats"
    ],
    "wide": false
  },
  {
    "kind": "exposure",
    "title": "Exposure",
    "told": "Light for a stop, what rates cost, shutter times, ND",
    "asks": [
      "stops",
      "unit"
    ],
    "wide": false
  },
  {
    "kind": "flicker",
    "title": "Flicker-safe shutters",
    "told": "Shutters that see every frame alike, for the rates in use",
    "asks": [],
    "wide": false
  },
  {
    "kind": "coverage",
    "title": "Coverage",
    "told": "The circle of every lens against what every format records",
    "asks": [
      "lenses",
      "formats",
      "bodies"
    ],
    "wide": true
  },
  {
    "kind": "chain",
    "title": "Crop chain of a body",
    "told": "Which step crops by how much, with every switch",
    "asks": [
      "bodies",
      "formats"
    ],
    "wide": true
  },
  {
    "kind": "claims",
    "title": "Claims about a body",
    "told": "What is stated, held against the figures: to send to whoever stated it",
    "asks": [
      "bodies"
    ],
    "wide": false
  },
  {
    "kind": "shots",
    "title": "Shot list",
    "told": "Every shot with what it is made with, and finder pictures",
    "asks": [
      "days",
      "pictures",
      "unit"
    ],
    "wide": true
  },
  {
    "kind": "kit",
    "title": "Kit list",
    "told": "By case: counts, weights, whose it is, serial numbers, what for",
    "asks": [
      "kit"
    ],
    "wide": false
  },
  {
    "kind": "worth",
    "title": "Best for the money",
    "told": "One shot in all that is owned, could be hired or bought, and what each step up gains",
    "asks": [
      "shot",
      "unit"
    ],
    "wide": true
  },
  {
    "kind": "monitor",
    "title": "Monitor marks",
    "told": "Where to put tape for each frame line",
    "asks": [
      "formats",
      "monitor",
      "unit"
    ],
    "wide": false
  },
  {
    "kind": "adapters",
    "title": "Adapters",
    "told": "What fits on what, through what, and what is lost",
    "asks": [
      "lenses",
      "bodies"
    ],
    "wide": false
  },
  {
    "kind": "bench",
    "title": "The Bench",
    "told": "The set-up that is on the Bench, in every format",
    "asks": [
      "unit"
    ],
    "wide": true
  },
  {
    "kind": "compare",
    "title": "Comparison",
    "told": "Set-ups side by side, and why they differ",
    "asks": [
      "comparison"
    ],
    "wide": false
  },
  {
    "kind": "day",
    "title": "Day report",
    "told": "What was shot, what differed from the plan, lens changes, cards and minutes",
    "asks": [
      "days",
      "unit"
    ],
    "wide": true
  },
  {
    "kind": "checks",
    "title": "Checklist before the day",
    "told": "A page for each body, in the order of the work",
    "asks": [
      "days",
      "bodies"
    ],
    "wide": false
  }
] as const
