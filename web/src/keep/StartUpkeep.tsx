import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import styled from 'styled-components'
import { api, bring, type Schemas } from '../api/client'
import { floorOptions, lineDueOptions, lineOptions } from '../api/queries'
import { MainButton } from '../kit/Button'
import { Choice } from '../kit/Choice'
import { Slip } from '../kit/Dialog'
import { Words } from '../kit/Field'
import { Tick } from '../kit/Tick'
import type { LengthUnit } from '../units/length'
import { useUnit } from '../units/preferences'
import { sayRefusal } from '../units/say'
import { daysTo, sayDays } from './due'

type Task = Schemas['Task']
const SOON = 31 // days: what is due within them may be done in the same stop
const DONE: Record<Task, string> = {
  'look it over': 'Looked over',
  'read wear and play': 'Wear and play read',
  'measure it closed': 'Measured closed',
  'read the alignment': 'Alignment read',
  'follow up the packing nuts': 'Packing followed up',
  'change the oil': 'Oil changed',
  'grease it': 'Greased',
  'pull the bolts again': 'Bolts pulled again',
}

interface StartUpkeepProps {
  lineId: string
  name: string
  /** What is chosen at first. */
  first: readonly Task[]
  onClose: () => void
}

/** A short job that does what is due: one lock-out, and everything that can be done in the same stop. */
export function StartUpkeep({ lineId, name, first, onClose }: StartUpkeepProps) {
  const sheet = useUnit()
  const navigate = useNavigate()
  const client = useQueryClient()
  const line = useQuery(lineOptions(lineId)).data
  const due = useQuery(lineDueOptions(lineId)).data
  const [chosen, setChosen] = useState<readonly Task[]>(first)
  const [title, setTitle] = useState<string | null>(null)
  const [unit, setUnit] = useState<LengthUnit>(sheet)
  const [problem, setProblem] = useState('')
  const usual = chosen.map((task, i) => (i ? DONE[task].toLowerCase() : DONE[task])).join(', ')
  const start = async () => {
    try {
      const job = await bring(
        api.POST('/api/jobs/of-line/{line_id}', {
          params: { path: { line_id: lineId } },
          body: { title: (title ?? usual).trim().slice(0, 120), scope: 'do what is due', tasks: [...chosen], unit },
        }),
      )
      client.invalidateQueries({ queryKey: floorOptions.queryKey })
      client.invalidateQueries({ queryKey: ['due'] })
      navigate(`/jobs/${job.id}`)
    } catch (why) {
      setProblem(sayRefusal(why, sheet))
    }
  }
  return (
    <Slip title={name} isOpen onClose={onClose}>
      <p>It is locked out once. Choose what is done in this stop.</p>
      <Tasks>
        {(line?.tasks ?? first).map((task) => {
          const one = due?.items.find((item) => item.task === task)
          const isSoon = one && (one.on === null || daysTo(one.on, due!.today) <= SOON)
          return (
            <Tick
              key={task}
              label={`${task[0]!.toUpperCase()}${task.slice(1)}`}
              detail={one ? `${isSoon ? 'due ' : ''}${sayDays(one.on, due!.today)}` : undefined}
              value={chosen.includes(task)}
              onChange={(on) => setChosen((before) => (on ? [...before, task] : before.filter((t) => t !== task)))}
            />
          )
        })}
      </Tasks>
      <Words label="What is to be done" value={title ?? usual} onChange={setTitle} problem={problem} />
      <Choice
        label="Record in"
        options={['mm', 'in'] as const}
        words={{ mm: 'mm', in: 'inch' }}
        value={unit}
        onChange={setUnit}
      />
      <MainButton isDisabled={chosen.length === 0 || !(title ?? usual).trim()} onPress={start}>
        Start the job
      </MainButton>
    </Slip>
  )
}

const Tasks = styled.div`
  display: flex;
  flex-direction: column;
  border-top: 0.75px solid var(--line);
  > * { border-bottom: 0.75px solid var(--line); }
`
