import { parseFamilies, standIns } from '../../src/core/fonts/stand-ins.js';

const names = (list: string, set: 'apple' | 'android' | 'windows' | 'linux', page: string[] = []) =>
  standIns([list], new Set(page), set).map(({ family, kind, font }) => `${family} ${kind} ${font ?? '-'}`);

test('font lists are read as the browser writes them', () => {
  expect(parseFamilies(`"Segoe UI", Arial, 'A, b', "say \\"hi\\"", sans-serif`)).toEqual([
    'Segoe UI',
    'Arial',
    'A, b',
    'say "hi"',
    'sans-serif',
  ]);
});

test('a family that the page brings, or of equal metrics, is no stand-in', () => {
  expect(names('Figtree, sans-serif', 'apple', ['Figtree'])).toEqual([]);
  expect(names('Helvetica, Arial, sans-serif', 'apple')).toEqual([]);
  expect(names('Roboto, sans-serif', 'android')).toEqual([]);
  expect(names('system-ui', 'android')).toEqual([]);
});

test("a platform's family that is not free is named with its stand-in", () => {
  expect(names('"Segoe UI", sans-serif', 'windows')).toEqual(['Segoe UI device Open Sans']);
  expect(names('system-ui, sans-serif', 'apple')).toEqual(['system-ui device Inter']);
});

test("another platform's family is passed over, as on the device", () => {
  expect(names('-apple-system, "Segoe UI", Roboto, sans-serif', 'android')).toEqual([]);
  expect(names('Roboto, Arial', 'windows')).toEqual([]);
});

test('a family that neither the page nor any device has is named', () => {
  expect(names('"Harbour Sans", Arial', 'linux')).toEqual(['Harbour Sans unknown -']);
});
