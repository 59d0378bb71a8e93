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
  "65 mm",
  "full frame",
  "Super 35",
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
    "name": "micro four thirds",
    "width_mm": 17.3,
    "height_mm": 13.0
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
    "name": "half frame",
    "width_mm": 24.0,
    "height_mm": 18.0
  },
  {
    "name": "Super 16",
    "width_mm": 12.52,
    "height_mm": 7.41
  },
  {
    "name": "1 inch",
    "width_mm": 13.2,
    "height_mm": 8.8
  },
  {
    "name": "2/3 inch",
    "width_mm": 9.6,
    "height_mm": 5.4
  },
  {
    "name": "65 mm",
    "width_mm": 52.48,
    "height_mm": 23.01
  }
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
