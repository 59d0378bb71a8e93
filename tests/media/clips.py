"""Clips and stills made with general libraries: no sample of a real camera."""

import io
from fractions import Fraction

import av
from PIL import Image


def clip(path, codec="mjpeg", size=(4096, 1714), fps=25, pix="yuvj444p", tags=None, frames=2, squeeze=None):
    """Write a clip; of its pictures nothing matters."""
    moving = str(path).lower().endswith((".mov", ".mp4", ".m4v"))
    with av.open(
        str(path), "w", container_options={"movflags": "use_metadata_tags"} if moving else {}
    ) as container:
        container.metadata.update(tags or {})
        stream = container.add_stream(codec, rate=fps)
        stream.width, stream.height = size
        stream.pix_fmt = pix
        if squeeze:
            stream.codec_context.sample_aspect_ratio = Fraction(squeeze)
        for i in range(frames):
            frame = av.VideoFrame(*size, pix)
            for plane in frame.planes:
                plane.update(bytes(plane.buffer_size))
            frame.pts = i
            container.mux(stream.encode(frame))
        container.mux(stream.encode())
    return path


def still(path, size=(640, 270), exif=None, top=None):
    """Write a JPEG with EXIF: `exif` by the numbers of its tags, `top` beside them."""
    image = Image.new("RGB", size)
    data = image.getexif()
    data.update(top or {})
    data.get_ifd(0x8769).update(exif or {})
    image.save(path, exif=data)
    return path


def still_bytes():
    out = io.BytesIO()
    Image.new("RGB", (64, 36)).save(out, "JPEG")
    return out.getvalue()
