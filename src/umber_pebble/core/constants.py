"""Physical constants. Source: codata-2018 where measured; iso-13732-1 for the skin limit (from memory)."""

ZERO_CELSIUS_K = 273.15
STEFAN_BOLTZMANN_W_M2K4 = 5.670374419e-8
GRAVITY_M_S2 = 9.80665
GAS_CONSTANT_AIR_J_KGK = 287.05
GAS_J_MOLK = 8.314462618
SEA_LEVEL_PA = 101_325.0
HOT_TO_HOLD_DEGC = 48.0
"""Ten minutes' contact, any material: hot to hold from here up (iso-13732-1, from memory)."""
