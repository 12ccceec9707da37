import { type ReactNode, useEffect } from 'react'
import { Link } from 'react-aria-components'
import styled from 'styled-components'
import { useServerAway } from '../api/server'
import { Choice } from '../kit/Choice'
import { Mark } from '../kit/Mark'
import { NARROW } from '../kit/widths'
import { Account } from '../session/Account'
import { usePreferences } from '../units/preferences'
import { sayHour } from '../units/when'

interface SheetProps {
  title: string
  /** What the tab of the browser says before it. */
  tab?: string
  note?: ReactNode
  /** Between title and switches: the floor's search. */
  tools?: ReactNode
  rail?: ReactNode
  children: ReactNode
  verdict?: ReactNode
  /** Bottom strip, left of the keys. */
  strip?: ReactNode
  keys?: readonly (readonly [string, string])[]
}

/** The drawing sheet: top bar, margin, bench, verdict, strip, parted by scribed lines. */
export function Sheet({ title, tab, note, tools, rail, children, verdict, strip, keys = [] }: SheetProps) {
  const [preferences, change] = usePreferences()
  const away = useServerAway()
  useEffect(() => {
    document.title = [tab, title, 'Young Anvil'].filter(Boolean).join(', ')
  }, [tab, title])
  return (
    <Page data-rail={rail ? '' : undefined} data-verdict={verdict ? '' : undefined}>
      <a className="skip" href="#bench">
        To the sheet
      </a>
      <header className="top">
        <Brand href="/" aria-label="Young Anvil, to the floor">
          <Mark />
          <span>Young Anvil</span>
        </Brand>
        <div className="name">
          <h1>{title}</h1>
          {note && <span>{note}</span>}
        </div>
        {tools}
        <div className="switches">
          <Choice
            hideLabel
            label="Unit of the sheet"
            options={['mm', 'in']}
            words={{ mm: 'mm', in: 'inch' }}
            value={preferences.unit}
            onChange={(unit) => change({ unit })}
          />
          <Toggle
            name="Big buttons"
            word={preferences.gloves}
            isOn={preferences.gloves === 'on'}
            onPress={() => change({ gloves: preferences.gloves === 'on' ? 'off' : 'on' })}
          />
          <Toggle
            name="Screen"
            word={preferences.hall === 'dim' ? 'dim' : 'daylight'}
            isOn={preferences.hall === 'dim'}
            onPress={() => change({ hall: preferences.hall === 'dim' ? 'bright' : 'dim' })}
          />
          <Account />
        </div>
      </header>
      {rail && <div className="rail">{rail}</div>}
      <main className="bench" id="bench" tabIndex={-1}>
        {children}
      </main>
      {verdict && (
        <aside className="verdict" aria-label="Verdict">
          {verdict}
        </aside>
      )}
      <footer className="strip">
        {away !== null && <strong role="status">No server since {sayHour(new Date(away).toISOString())}</strong>}
        <div className="left">{strip}</div>
        <div className="keys" aria-hidden="true">
          {(preferences.letters === 'on' ? keys : []).map(([key, what]) => (
            <span key={key}>
              <kbd>{key}</kbd>
              {what}
            </span>
          ))}
        </div>
      </footer>
    </Page>
  )
}

function Toggle({ name, word, isOn, onPress }: { name: string; word: string; isOn: boolean; onPress: () => void }) {
  return (
    <button type="button" className="cell" aria-pressed={isOn} onClick={onPress}>
      <span>
        {name}
        <small>{word}</small>
      </span>
    </button>
  )
}

const Brand = styled(Link)`
  width: 212px;
  flex: none;
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: var(--touch);
  padding-left: 14px;
  font-size: var(--fs-head);
  font-weight: 600;
  text-decoration: none;
  border-right: 1.25px solid var(--ink);
`

const Page = styled.div`
  --head: max(52px, calc(var(--touch) + 2px));
  --foot: calc(var(--touch) + 2px); /* its scribed line and a whole finger */
  display: grid;
  height: 100%;
  grid-template: var(--head) minmax(0, 1fr) var(--foot) / minmax(0, 1fr);
  grid-template-areas: 'top' 'bench' 'strip';
  &[data-rail] { grid-template-columns: 212px minmax(0, 1fr); grid-template-areas: 'top top' 'rail bench' 'strip strip'; }
  &[data-rail][data-verdict] { grid-template-columns: 212px minmax(0, 1fr) 308px; grid-template-areas: 'top top top' 'rail bench verdict' 'strip strip strip'; }
  &[data-verdict]:not([data-rail]) { grid-template-columns: minmax(0, 1fr) 308px; grid-template-areas: 'top top' 'bench verdict' 'strip strip'; }

  .skip { position: absolute; left: -1000px; top: 0; z-index: 30; min-height: var(--touch); padding: 12px 18px; background: var(--ink); color: var(--paper); }
  .skip:focus { left: 0; }
  .bench:focus { outline: none; }
  .top { grid-area: top; display: flex; align-items: stretch; border-bottom: 2px solid var(--ink); min-width: 0; }
  .name { display: flex; flex-direction: column; justify-content: center; padding: 0 16px; flex: 1; min-width: 0; }
  .name h1 { font-size: var(--fs-head); font-weight: 600; line-height: 1.1; overflow-wrap: anywhere; }
  .name span { font-size: var(--fs-small); color: var(--ink-2); line-height: 1.15; }
  .switches { display: flex; align-items: stretch; flex: none; }
  .switches > div:first-child { justify-content: center; }
  .cell { border-left: 1.25px solid var(--hair); padding: 0 13px; display: flex; align-items: center; gap: 9px; font-size: var(--fs-text); font-weight: 500; min-width: var(--touch); text-align: left; }
  .switches > div:first-child + .cell { margin-left: 10px; }
  .cell small { display: block; font-size: var(--fs-note); color: var(--ink-2); font-weight: 400; line-height: 1.15; }
  .rail { grid-area: rail; border-right: 1.25px solid var(--ink); background: var(--rail); overflow-y: auto; overflow-x: hidden; min-height: 0; }
  .bench { grid-area: bench; overflow: auto; min-width: 0; position: relative; }
  .verdict { grid-area: verdict; border-left: 1.25px solid var(--ink); overflow-y: auto; display: flex; flex-direction: column; min-width: 0; }
  .strip { grid-area: strip; display: flex; align-items: stretch; border-top: 2px solid var(--ink); background: var(--rail); font-size: var(--fs-text); min-width: 0; overflow: hidden; }
  .strip > strong, .strip .left > strong { flex: none; align-self: stretch; display: flex; align-items: center; padding: 0 12px; background: var(--ink); color: var(--paper); font-weight: 600; white-space: nowrap; }
  .strip .left { display: flex; align-items: stretch; min-width: 0; }
  .keys { margin-left: auto; display: flex; align-items: center; gap: 16px; padding: 0 16px; font-size: var(--fs-small); color: var(--ink-2); white-space: nowrap; }
  .keys kbd { font: 500 var(--fs-note) var(--read); border: 1.25px solid var(--line); background: var(--paper); color: var(--ink); padding: 1px 6px 2px; margin-right: 5px; }

  /* Upright and narrow: the route one line at the head, the verdict a bar at the foot, the bench scrolls between them. */
  ${NARROW} {
    &[data-verdict], &[data-rail][data-verdict] { grid-template: var(--head) auto minmax(0, 1fr) auto var(--foot) / minmax(0, 1fr); grid-template-areas: 'top' 'rail' 'bench' 'verdict' 'strip'; }
    &[data-verdict]:not([data-rail]) { grid-template: var(--head) minmax(0, 1fr) auto var(--foot) / minmax(0, 1fr); grid-template-areas: 'top' 'bench' 'verdict' 'strip'; }
    &[data-verdict] .rail { overflow: visible; border-right: 0; border-bottom: 1.25px solid var(--ink); position: relative; z-index: 5; }
    .verdict { border-left: 0; border-top: 2px solid var(--ink); overflow: hidden; }
    ${Brand} { width: 60px; padding-left: 12px; span { display: none; } }
    .keys { display: none; }
    .strip { overflow-x: auto; }
  }
  @media (min-width: 1101px) and (max-width: 1180px) {
    &[data-rail]:not([data-verdict]) { grid-template-columns: 180px minmax(0, 1fr); }
    &[data-rail][data-verdict] { grid-template-columns: 60px minmax(0, 1fr) 300px; }
    &[data-verdict] .rail { position: relative; width: 60px; }
    &[data-verdict] .rail > * { min-width: 212px; }
    &[data-verdict] .rail:not(:hover, :focus-within) :is(span, b, small, em, [data-fold]) { opacity: 0; }
    &[data-verdict] .rail:hover, &[data-verdict] .rail:focus-within { width: 230px; z-index: 5; border-right: 3px solid var(--ink); }
    ${Brand} { width: 60px; padding-left: 12px; span { display: none; } }
    .keys span:nth-child(n + 3) { display: none; }
  }
  @media (max-width: 860px) {
    &:not([data-verdict]) {
      height: auto;
      min-height: 100%;
      grid-template: auto 1fr var(--foot) / minmax(0, 1fr);
      grid-template-areas: 'top' 'bench' 'strip';
      .strip { position: sticky; bottom: 0; z-index: 4; }
      .top { flex-wrap: wrap; }
      .name { min-height: var(--head); }
    }
    &[data-rail]:not([data-verdict]) { grid-template: auto auto 1fr var(--foot) / minmax(0, 1fr); grid-template-areas: 'top' 'rail' 'bench' 'strip'; }
    &:not([data-verdict]) .rail { border-right: 0; border-bottom: 1.25px solid var(--ink); }
    .bench { overflow-x: auto; }
    .keys { display: none; }
  }
  @media (max-width: 700px) {
    &[data-verdict], &[data-rail][data-verdict] { grid-template-rows: auto auto minmax(0, 1fr) auto var(--foot); }
    &[data-verdict]:not([data-rail]) { grid-template-rows: auto minmax(0, 1fr) auto var(--foot); }
    .top { flex-wrap: wrap; }
    .name { order: 3; flex-basis: 100%; padding: 4px 16px; }
    .cell { padding: 0 8px; }
  }
  /* On paper: what is drawn and typed, then what it comes to, all of it. */
  @media print {
    display: block;
    height: auto;
    .rail, .strip, .switches, .skip { display: none; }
    .bench, .verdict { overflow: visible; }
    .verdict { border-left: 0; border-top: 2px solid var(--ink); }
  }
`
