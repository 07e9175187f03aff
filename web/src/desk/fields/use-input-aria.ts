import { onMounted, onUpdated, useAttrs, type ShallowRef } from 'vue'

const HANDED_ON = ['aria-invalid', 'aria-describedby']

/** Hands what says "wrong" and "explained there" on to the input inside a control of the library, which keeps them on its outer box. */
export function useInputAria(box: Readonly<ShallowRef<HTMLElement | null>>): void {
  const attrs = useAttrs()

  function hand() {
    const input = box.value?.querySelector('input')
    for (const name of HANDED_ON) {
      const value = attrs[name]
      if (value === undefined || value === null) input?.removeAttribute(name)
      else input?.setAttribute(name, String(value))
    }
  }

  onMounted(hand)
  onUpdated(hand)
}
