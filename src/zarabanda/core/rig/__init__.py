"""The rig: attributes, heads, the stage and its kinematics, slots and bytes."""
