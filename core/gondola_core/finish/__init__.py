"""What follows the last pour: letting go, faces, top, edge strips, and a removable figure's fit."""
