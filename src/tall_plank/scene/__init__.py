"""The job as meshes with materials, for the model view and for glTF."""

from tall_plank.scene.meshes import Mesh, Scene, build_scene, visible_scene

__all__ = ["Mesh", "Scene", "build_scene", "visible_scene"]
