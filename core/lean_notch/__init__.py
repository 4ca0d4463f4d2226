"""Lean Notch's core: design + basis → build → layout → cut plan → file → proof.

Lengths are millimetres (float) and angles degrees unless a name says otherwise. Every arrow is a pure
function; nothing here knows a server, a database or a page.
"""
