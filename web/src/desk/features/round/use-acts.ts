import { desk, type Row, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { say, sayProblem } from '../../say'

type Change = Partial<Schemas['BasketChange']> & Pick<Schemas['BasketChange'], 'kind'>

/** Does something to baskets as they were seen, says so, and offers to undo it. Whoever was changed by a colleague meanwhile is told instead. */
export function useActs(roundId: number) {
  async function undo(act: number) {
    try {
      await desk.undoAct(act)
      say(text.acts.undone)
    } catch (error) {
      sayProblem(error)
    }
  }

  function done(result: Schemas['BasketsChanged'], words: string) {
    if (result.changed === 0) say(text.acts.nothing)
    else say(`${words}: ${text.acts.people(result.changed)}`, { label: text.panel.undo, run: () => void undo(result.act) })
  }

  /** Throws the problem, so that a form can show it at its fields. */
  async function act(rows: Pick<Row, 'id' | 'version'>[], change: Change, words: string) {
    done(await desk.act(roundId, { ...change, baskets: rows.map(({ id, version }) => ({ id, version })) }), words)
  }

  /** The same where there is no form to show a problem. */
  async function tryAct(rows: Pick<Row, 'id' | 'version'>[], change: Change, words: string): Promise<boolean> {
    try {
      await act(rows, change, words)
      return true
    } catch (error) {
      sayProblem(error)
      return false
    }
  }

  async function addLate(people: Schemas['LatePerson'][], groups: string[]) {
    done(await desk.addLate(roundId, people, groups), text.acts.added)
  }

  return { act, tryAct, addLate, undo }
}
