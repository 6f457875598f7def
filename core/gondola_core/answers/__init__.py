"""Answers: what one subject says of a scene, each kept by what it reads."""
