import { describe, expect, it } from 'vitest'
import table from '../../../tests/lengths.json'
import {
  forRecord,
  readDegrees,
  readLengthMm,
  readNumber,
  readSeconds,
  readSlope,
  readTemperatureC,
  readTorqueNm,
  showFigure,
  showLength,
  showSlope,
  showTime,
  showTyped,
} from './length'

describe('a length is read as people write it, here as on the server', () => {
  for (const { text, unit, mm } of table.lengths)
    it(`${JSON.stringify(text)} on a sheet in ${unit} is ${mm}`, () => {
      const read = readLengthMm({ text, unit: unit as 'mm' | 'in' })
      if (mm === null) expect(read).toBeNull()
      else expect(read).toBeCloseTo(mm, 9)
    })
})

describe('a temperature is read as people write it, here as on the server', () => {
  for (const { text, celsius } of table.temperatures)
    it(`${JSON.stringify(text)} is ${celsius}`, () => {
      const read = readTemperatureC(text)
      if (celsius === null) expect(read).toBeNull()
      else expect(read).toBeCloseTo(celsius, 9)
    })
})

const agrees = (read: number | null, wanted: number | null) =>
  wanted === null ? expect(read).toBeNull() : expect(read).toBeCloseTo(wanted, 6)

describe('a torque is read as people write it, here as on the server', () => {
  for (const { text, nm } of table.torques) it(JSON.stringify(text), () => agrees(readTorqueNm(text), nm))
})

describe('an angle is read as people write it, here as on the server', () => {
  for (const { text, unit, slope } of table.angles)
    it(`${JSON.stringify(text)} where ${unit} is meant`, () =>
      agrees(readSlope({ text, unit: 'mm' }, unit as 'mm/m' | '°'), slope))
  it('a gap on a diameter follows the sheet, and reads back as degrees', () => {
    expect(readSlope({ text: '0.008 on 5.5', unit: 'in' }, '°')).toBeCloseTo(1.454545, 5)
    expect(readDegrees({ text: '0.2 on 140', unit: 'mm' })).toBeCloseTo(0.08185, 4)
    expect(readDegrees({ text: '0.35', unit: 'mm' })).toBe(0.35)
  })
})

describe('what goes into the record beside the value', () => {
  it('is nothing for plain millimetres', () => {
    expect(forRecord({ text: ' 0.05 ', unit: 'mm' })).toBeNull()
  })
  it('is the text with its unit for bare figures on an inch sheet', () => {
    expect(forRecord({ text: '.002', unit: 'in' })).toBe('.002 in')
  })
  it('is the text as it stands where it names its own unit', () => {
    expect(forRecord({ text: '1/64', unit: 'mm' })).toBe('1/64')
  })
})

describe('shown in the unit of the sheet', () => {
  it('an inch shows two places more than a millimetre', () => {
    expect(showLength(25.4, 'in')).toBe('1.0000')
    expect(showLength(25.4, 'mm')).toBe('25.40')
  })
  it('a true minus, a plus only where it is asked for, and none on what rounds to nothing', () => {
    expect([showLength(-0.05, 'mm'), showLength(0.05, 'mm', 2, true), showLength(-0.001, 'mm')]).toEqual([
      '−0.05',
      '+0.05',
      '0.00',
    ])
    expect([
      showFigure(-0.0004, 'mm/m', 'mm').text,
      showFigure(-0.0004, '°', 'mm').text,
      showFigure(-2, '°', 'mm').text,
    ]).toEqual(['0.000', '0.000', '−2.000'])
  })
  it('typed text stays as typed in its own unit and is converted once the sheet is switched', () => {
    expect(showTyped({ text: '0.05', unit: 'mm' }, 'mm')).toBe('0.05')
    expect(showTyped({ text: '25.4', unit: 'mm' }, 'in')).toBe('1.0000')
    expect(showTyped({ text: '+0.06', unit: 'mm' }, 'in')).toBe('+0.0024') // a dial's hundredths, with the dial's sign
    expect(showTyped({ text: '90.051', unit: 'mm' }, 'in')).toBe('3.54531') // a micrometer's thousandths
    expect(showTyped({ text: '2 thou', unit: 'mm' }, 'in')).toBe('2 thou')
  })
})

describe('a figure of a check', () => {
  it('has its slope in mm per 100 mm, or thou per inch: a thou an inch is a mm a metre', () => {
    expect(showFigure(1.5, 'mm/m', 'mm')).toEqual({ text: '0.150', unit: '/100' })
    expect(showFigure(-1.5, 'mm/m', 'in')).toEqual({ text: '−1.500', unit: 'thou/in' })
    expect([showSlope(1.5, 'mm'), showSlope(1.5, 'in')]).toEqual(['0.150 /100', '1.50 thou/in'])
  })
  it('has lengths in the unit of the sheet, torque and the rest as they are', () => {
    expect(showFigure(0.254, 'mm', 'in')).toEqual({ text: '0.01000', unit: 'in' })
    expect(showFigure(70, 'N·m', 'in')).toEqual({ text: '70.0', unit: 'N·m' })
    expect(showFigure(1480, 'rpm', 'in')).toEqual({ text: '1480', unit: 'rpm' })
  })
})

describe('times and numbers', () => {
  it('minutes and seconds, hours where there are any', () => {
    expect([showTime(226), showTime(4861.7), showTime(-5)]).toEqual(['3:46', '1:21:02', '0:05'])
  })
  it('is read from a stop watch and from plain seconds', () => {
    expect([
      readSeconds('1:04'),
      readSeconds('1:00:04'),
      readSeconds('64'),
      readSeconds('-3'),
      readSeconds('a while'),
    ]).toEqual([64, 3604, 64, null, null])
  })
  it('a comma is a decimal point, words are no number', () => {
    expect([readNumber('0,5'), readNumber('−2'), readNumber('2 x')]).toEqual([0.5, -2, null])
  })
})
