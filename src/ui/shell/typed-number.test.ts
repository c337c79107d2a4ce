import { typedIn, typedNumber } from './typed-number';

describe('a figure of a form', () => {
  it.each([
    ['1420', 'm', 1420],
    ['4660 ft', 'm', 1420.368],
    ['11', '°C', 11],
    ['52 °F', '°C', 11.11111111],
    ['0,6 L', 'cm3', 600],
    ['36 in3', 'cm3', 589.934304],
    ['', 'm', undefined],
  ])('“%s” in %s', (text, symbol, value) => {
    expect(typedIn(symbol, text)).toBe(value);
  });

  it('that is none, or of another kind, is not taken for one', () => {
    expect(typedIn('m', '12 bar')).toBeNaN();
    expect(typedIn('m', 'high')).toBeNaN();
    expect(typedNumber('12 bar')).toBeNaN();
  });
});
