"""The computation: pure Python and NumPy, free of web, database, files and clock.

Rooms, each using only those before it: standards, geometry, colour, plan, kit, camera, figure, light, rig, frames,
evaluation, plate, advice, matte, diagnosis, standin.
"""
