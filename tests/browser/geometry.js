// What a hand cannot hit and an eye cannot read on the page as it is; links inside a sentence are read, not aimed at.
(least) => {
  const found = []
  const say = (what, el, more) => found.push(what + ': ' + name(el) + (more ? ' ' + more : ''))
  const name = (el) => (el.getAttribute('aria-label') || el.textContent || el.getAttribute('name') || el.tagName).trim().slice(0, 60) + ' <' + el.tagName.toLowerCase() + '>'
  const shown = (el) => {
    if (!el.checkVisibility({ opacityProperty: true, visibilityProperty: true, contentVisibilityAuto: true })) return false
    const box = el.getBoundingClientRect()
    return box.width > 1 && box.height > 1
  }
  const target = (el) => el.closest('label, [data-target]') || el
  const aimed = document.querySelectorAll('button, a[href], input, select, textarea, [role=button], [role=radio], [role=checkbox], [role=switch], [role=option], summary')
  for (const el of aimed) {
    if (el.closest('[aria-hidden=true]') || (el.tagName === 'A' && getComputedStyle(el).display === 'inline' && el.closest('p'))) continue
    let aim = ['checkbox', 'radio'].includes(el.type) ? target(el) : el
    if (!shown(aim)) continue
    const box = aim.getBoundingClientRect()
    if (box.width < least - 0.6 || box.height < least - 0.6) say('small', el, Math.round(box.width) + 'x' + Math.round(box.height))
  }
  for (const el of document.querySelectorAll('input[data-cell]')) {
    if (shown(el) && el.scrollWidth > el.clientWidth) say('cut', el, 'by ' + (el.scrollWidth - el.clientWidth) + ': ' + el.value)
  }
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  const range = document.createRange()
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const el = node.parentElement
    if (!node.textContent.trim() || !el || ['SCRIPT', 'STYLE', 'TITLE', 'OPTION'].includes(el.tagName) || !shown(el)) continue
    range.selectNodeContents(node)
    const box = range.getBoundingClientRect()
    if (box.width < 1) continue
    const svg = el.closest('svg')
    const scale = svg && el.getScreenCTM ? Math.hypot(el.getScreenCTM().a, el.getScreenCTM().b) : 1
    const px = parseFloat(getComputedStyle(el).fontSize) * scale
    if (px < 12.9) say('tiny', el, px.toFixed(1) + ' px')
    let clip = el
    while (clip && clip !== document.body) {
      const style = getComputedStyle(clip)
      const frame = clip.getBoundingClientRect()
      const hides = (clip === svg ? style.overflow : style.overflowX)
      if (frame.width <= 1) break // only for who listens
      if (hides !== 'visible' && hides !== 'auto' && hides !== 'scroll') {
        if (box.right > frame.right + 1.5 || box.left < frame.left - 1.5) { say('cut', el, 'by ' + Math.round(Math.max(box.right - frame.right, frame.left - box.left))); break }
      }
      if (hides === 'auto' || hides === 'scroll') break
      clip = clip.parentElement
    }
  }
  for (const svg of document.querySelectorAll('main svg')) {
    const words = [...svg.querySelectorAll('text')].filter((el) => el.textContent.trim() && shown(el)).map((el) => [el, el.getBoundingClientRect()])
    words.forEach(([el, a], i) => {
      for (const [other, b] of words.slice(i + 1)) {
        const over = [Math.min(a.right, b.right) - Math.max(a.left, b.left), Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)]
        if (over[0] > 2 && over[1] > 5) say('over each other', el, 'and ' + other.textContent + ' ' + over.map(Math.round))
      }
    })
  }
  const wide = document.documentElement.scrollWidth - innerWidth
  if (wide > 0) found.push('wide: the page by ' + wide)
  for (const el of document.querySelectorAll('main, main *')) {
    const style = getComputedStyle(el)
    if (['auto', 'scroll'].includes(style.overflowX) && el.scrollWidth > el.clientWidth + 1 && shown(el)) say('sideways', el, 'by ' + (el.scrollWidth - el.clientWidth))
  }
  return [...new Set(found)]
}
