"""Ringside's core: where drum microphones stand, what reaches them and when.

Frame (said once, used everywhere): right-handed metres. x runs to the drummer's
right, y from the drummer toward the audience, z up from the floor. The origin is
on the floor under the centre of the snare. A left-handed kit mirrors x.

SI inside: metres, seconds, hertz, radians; levels in decibels. Units of display
belong to the edges (server sheets, web). No framework, file, clock or network here.
"""
