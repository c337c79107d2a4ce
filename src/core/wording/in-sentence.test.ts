import { inSentence } from './in-sentence';

describe('words within a sentence', () => {
  it.each([
    ['Press the pedal to 200 N, hold, let go', 'press the pedal to 200 N, hold, let go'],
    ['Pull the lever slowly past 2.31 MPa', 'pull the lever slowly past 2.31 MPa'],
    ['MPa', 'MPa'],
    ['ABS pump', 'ABS pump'],
    ['', ''],
  ])('%s: %s', (text, expected) => expect(inSentence(text)).toBe(expected));
});
