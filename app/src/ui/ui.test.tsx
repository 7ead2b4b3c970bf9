import { useState } from 'react';
import { doing, onPage } from '../test/onPage';
import { Button } from './Button';
import { Caution } from './Caution';
import { Field } from './Field';
import { LongChoice } from './LongChoice';
import { Notice } from './Notice';
import { Segments } from './Segments';
import { Toggle } from './Toggle';
import { Txt } from './Txt';
import { verdictWords } from '@keen-bleed/core';
import { VerdictSign } from './VerdictSign';

describe('a verdict', () => {
  it.each(['pass', 'fail', 'cant-tell', 'incomplete'] as const)(
    '%s is a shape and a word, not a colour alone',
    async (verdict) => {
      const page = await onPage(<VerdictSign verdict={verdict} />);
      expect(page.text()).toBe(verdictWords[verdict]);
      expect(document.querySelectorAll('svg')).toHaveLength(1);
      await page.leave();
    },
  );

  it('has another shape for each', async () => {
    const shapes = new Set<string>();
    for (const verdict of ['pass', 'fail', 'cant-tell', 'incomplete'] as const) {
      const page = await onPage(<VerdictSign verdict={verdict} />);
      shapes.add(
        document.querySelector('svg')?.innerHTML.replaceAll(/(fill|stroke)="[^"]*"/g, '') ?? '',
      );
      await page.leave();
    }
    expect(shapes.size).toBe(4);
  });
});

describe('a caution', () => {
  it('is announced as one, with each danger on a line of its own', async () => {
    const page = await onPage(<Caution lines={['Chock both ways.', 'Stay clear.']} />);
    expect(page.the('note', 'Caution').textContent).toBe('Chock both ways.Stay clear.');
    await page.leave();
  });

  it('is not there where there is no danger', async () => {
    const page = await onPage(<Caution lines={[]} />);
    expect(page.all('note')).toEqual([]);
    await page.leave();
  });
});

describe('one of a few', () => {
  function Units() {
    const [value, setValue] = useState<'psi' | 'kPa' | 'bar'>('psi');
    const options = (['psi', 'kPa', 'bar'] as const).map((each) => ({ value: each, title: each }));
    return <Segments label="Pressure in" options={options} value={value} onChange={setValue} />;
  }
  const chosen = (radios: HTMLElement[]) =>
    radios
      .filter((radio) => radio.getAttribute('aria-checked') === 'true')
      .map((radio) => radio.textContent);

  it('is a group of radio buttons, of which one can be reached by Tab', async () => {
    const page = await onPage(<Units />);
    expect(page.the('radiogroup', 'Pressure in')).toBeTruthy();
    expect(page.all('radio').map((radio) => radio.tabIndex)).toEqual([0, -1, -1]);
    expect(chosen(page.all('radio'))).toEqual(['psi']);
    await page.leave();
  });

  it('is moved by the arrows, around both ends, and keeps them to itself', async () => {
    const page = await onPage(<Units />);
    const heard: string[] = [];
    const listen = (event: KeyboardEvent) => heard.push(event.key);
    window.addEventListener('keydown', listen);
    const press = (key: string) =>
      doing(() =>
        page
          .the('radio', chosen(page.all('radio'))[0])
          .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true })),
      );
    await press('ArrowRight');
    expect(chosen(page.all('radio'))).toEqual(['kPa']);
    await press('ArrowLeft');
    await press('ArrowLeft');
    expect(chosen(page.all('radio'))).toEqual(['bar']);
    expect(document.activeElement?.textContent).toBe('bar');
    await press('x');
    window.removeEventListener('keydown', listen);
    // The run's own arrow keys must not move the needle meanwhile.
    expect(heard).toEqual(['x']);
    await page.leave();
  });
});

describe('one of a few, where nothing is chosen yet', () => {
  it('is reached by Tab all the same, and the arrows begin at either end', async () => {
    const heard: string[] = [];
    const options = ['yes', 'no', 'not seen'].map((each) => ({ value: each, title: each }));
    const page = await onPage(
      <Segments
        label="Is it so?"
        options={options}
        value=""
        onChange={(each) => heard.push(each)}
      />,
    );
    const [first] = page.all('radio');
    expect(page.all('radio').map((radio) => radio.tabIndex)).toEqual([0, -1, -1]);
    for (const key of ['ArrowRight', 'ArrowLeft']) {
      await doing(() => first!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true })));
    }
    expect(heard).toEqual(['yes', 'not seen']);
    await page.leave();
  });
});

describe('one of many', () => {
  const options = [
    { value: 'nothing', title: 'quiet all round' },
    ...['front', 'rear'].flatMap((axle) =>
      ['left', 'right'].flatMap((side) =>
        ['chamber', 'hose', 'spring side'].map((part) => ({
          value: `${axle}-${side}-${part}`,
          title: `${axle} ${side} ${part}`,
        })),
      ),
    ),
  ];
  function Places() {
    const [value, setValue] = useState('');
    return (
      <LongChoice
        label="What did you find?"
        hint="such as rear"
        options={options}
        value={value}
        onChange={setValue}
      />
    );
  }
  const look = (words: string) =>
    doing(() => {
      const input = document.querySelector('input')!;
      // React keeps its own setter on the element: the browser's is the prototype's.
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, words);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
  const titles = (radios: HTMLElement[]) => radios.map((radio) => radio.textContent);

  it('has the usual answer by itself, and finds the others by any of their words', async () => {
    const page = await onPage(<Places />);
    expect(titles(page.all('radio'))[0]).toBe('quiet all round');
    expect(page.text()).toContain('4 more: type a word.');
    await look('hose rear');
    expect(titles(page.all('radio'))).toEqual([
      'quiet all round',
      'rear left hose',
      'rear right hose',
    ]);
    await look('bumper');
    expect(page.text()).toContain('No place here goes by that word.');
    await page.leave();
  });

  it('keeps in sight what is chosen, whatever is looked for next', async () => {
    const page = await onPage(<Places />);
    await look('rear left hose');
    await doing(() => page.all('radio')[1]!.click());
    await look('front');
    const chosen = page.all('radio').filter((each) => each.getAttribute('aria-checked') === 'true');
    expect(titles(chosen)).toEqual(['rear left hose']);
    await page.leave();
  });
});

describe('a box to fill in', () => {
  it('is named by its label, and tied to what is wrong with it', async () => {
    const problem = 'Build year must be a number.';
    const page = await onPage(
      <Field label="Build year" value="x" onChange={() => undefined} problem={problem} />,
    );
    const input = document.querySelector('input');
    expect(input?.getAttribute('aria-label')).toBe('Build year');
    expect(input?.getAttribute('aria-invalid')).toBe('true');
    const described = document.getElementById(input?.getAttribute('aria-describedby') ?? '');
    expect(described?.textContent).toBe(problem);
    await page.redraw(<Field label="Build year" value="2015" onChange={() => undefined} />);
    expect(document.querySelector('input')?.getAttribute('aria-invalid')).toBe('false');
    expect(page.text()).not.toContain(problem);
    await page.leave();
  });
});

describe('things to press', () => {
  it('say their state: checked, busy, not now', async () => {
    const pressed = jest.fn();
    const page = await onPage(<Toggle label="Spring brake" value={false} onChange={pressed} />);
    expect(page.the('checkbox').getAttribute('aria-checked')).toBe('false');
    await doing(() => page.the('checkbox').click());
    expect(pressed).toHaveBeenCalledWith(true);
    await page.redraw(<Button title="Save" busy onPress={pressed} />);
    expect(page.text()).toBe('Save…');
    pressed.mockClear();
    await doing(() => page.the('button').click());
    expect(pressed).not.toHaveBeenCalled();
    await page.leave();
  });

  it('speak up when there is trouble, and only then', async () => {
    const page = await onPage(
      <Notice
        manner="trouble"
        title="No answer"
        action={{ title: 'Try again', onPress: () => undefined }}
      />,
    );
    expect(page.the('alert').textContent).toContain('No answer');
    await page.redraw(<Notice title="No runs yet" />);
    expect(page.all('alert')).toEqual([]);
    expect(page.the('status').textContent).toBe('No runs yet');
    await page.leave();
  });

  it('make headings of what is one', async () => {
    const page = await onPage(
      <Txt heading={2} as="heading">
        Marks
      </Txt>,
    );
    expect(document.querySelector('h2, [aria-level="2"]')?.textContent).toBe('Marks');
    await page.leave();
  });
});
