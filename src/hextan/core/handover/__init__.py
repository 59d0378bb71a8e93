"""What do other programs get of a set-up, and which set-up do they mean?"""

from hextan.core.handover.facts import CameraFacts, ThingFacts
from hextan.core.handover.matched import SeenCamera, state_of
from hextan.core.handover.setups import Source, setups_of

__all__ = ["CameraFacts", "SeenCamera", "Source", "ThingFacts", "setups_of", "state_of"]
