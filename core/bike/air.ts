/**
 * Density of dry air, kg/m3: p / (287.05 T), p by the standard atmosphere. 20 C at sea level: 1.2041; -5 C at 900 m: 1.1819.
 *
 * @example airDensity(20, 0).toFixed(4) === "1.2041"
 */
export function airDensity(tempC: number, altitudeM: number): number {
  const pressurePa = 101_325 * (1 - 2.25577e-5 * altitudeM) ** 5.25588;
  return pressurePa / (287.05 * (tempC + 273.15));
}
