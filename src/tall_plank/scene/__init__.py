"""The job as meshes with materials, for the model view and for glTF."""

from tall_plank.scene.meshes import build_scene, visible_scene
from tall_plank.solids.solids import Mesh, Scene

__all__ = ["Mesh", "Scene", "build_scene", "visible_scene"]
