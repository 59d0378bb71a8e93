"""A camera that speaks as real ones do: OpenTrackIO samples over UDP and as lines over HTTP; and one that misbehaves."""
