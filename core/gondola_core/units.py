"""Factors to SI. A value in a suffixed unit times its factor is SI: `depth = depth_mm * MM`."""

MM = 1e-3
"""metres in a millimetre"""
CM = 1e-2
"""metres in a centimetre"""
CM2 = 1e-4
"""square metres in a square centimetre"""
ML = 1e-6
"""cubic metres in a millilitre"""
G = 1e-3
"""kilograms in a gram"""
G_PER_ML = 1e3
"""kg/m3 in one g/ml"""
J_PER_G = 1e3
"""J/kg in one J/g"""
KJ_PER_MOL = 1e3
"""J/mol in one kJ/mol"""
MPA_S = 1e-3
"""Pa s in one mPa s"""
NM = 1e-9
"""metres in a nanometre"""
MINUTE = 60.0
"""seconds in a minute"""
HOUR = 3600.0
"""seconds in an hour"""
DAY = 86400.0
"""seconds in a day"""
ZERO_C = 273.15
"""kelvin at 0 degrees Celsius"""
GAS_CONSTANT = 8.314462618
"""J/(mol K), exact by the 2019 definition of the mole and the kelvin"""
GRAVITY = 9.80665
"""m/s2, standard acceleration of free fall"""
GPA = 1e9
"""pascals in a gigapascal"""
MPA = 1e6
"""pascals in a megapascal"""
MM2 = 1e-6
"""square metres in a square millimetre"""
