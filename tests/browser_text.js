// What of a page's text cannot be read: [kind, text, other] of each. Boxes are those that the browser itself gives.
() => {
  const unseen = (e) => { for (; e && e !== document.body; e = e.parentElement) if (getComputedStyle(e).clipPath === 'inset(50%)') return true; return false }
  const shown = (e) => !unseen(e) && e.checkVisibility({ opacityProperty: true, visibilityProperty: true })
  const clips = (e) => ['hidden', 'clip'].includes(e.overflowX)
  const scrolls = (e) => ['auto', 'scroll'].includes(e)
  const layered = (e) => {
    for (; e && e !== document.body; e = e.parentElement)
      if (['fixed', 'sticky'].includes(getComputedStyle(e).position) || e.matches('dialog, [role=dialog], [role=tooltip], .el-popper')) return e
    return null
  }
  const painted = (e) => {
    const m = e.getScreenCTM?.()
    return parseFloat(getComputedStyle(e).fontSize) * (m ? Math.hypot(m.a, m.b) : 1)
  }
  const texts = []
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const e = node.parentElement
    if (!node.data.trim() || !e || e.closest('script, style, noscript, title, desc, .unseen, .skip, option') || !shown(e)) continue
    const range = document.createRange()
    range.selectNodeContents(node)
    for (const box of range.getClientRects()) {
      if (box.width < 1 || box.height < 1) continue
      let [left, top, right, bottom] = [box.left, box.top, box.right, box.bottom]
      let cut = ''
      for (let a = e; a && a !== document.documentElement; a = a.parentElement) {
        const style = getComputedStyle(a)
        if (style.display === 'inline' || style.display === 'contents' || (a.ownerSVGElement && a.tagName !== 'svg')) continue
        const frame = a.getBoundingClientRect()
        const [x, y] = [scrolls(style.overflowX), scrolls(style.overflowY)]
        if (clips(style) && !x && (left < frame.left - 1.5 || right > frame.right + 1.5) && right > frame.left && left < frame.right)
          cut ||= style.textOverflow === 'ellipsis' && (a.title || e.closest('[title]')) ? '' : a.tagName + '.' + (a.getAttribute('class') ?? '')
        const bordered = style.borderLeftWidth !== '0px' && style.borderRightWidth !== '0px'
        if (bordered && !x && (left < frame.left - 1.5 || right > frame.right + 1.5)) cut ||= 'hangs out of ' + (a.getAttribute('class') ?? a.tagName)
        if (a.tagName === 'svg' && (top < frame.top - 3 || bottom > frame.bottom + 3) && bottom > frame.top && top < frame.bottom && clips(style))
          cut ||= 'above or below svg'
        if (x || clips(style)) [left, right] = [Math.max(left, frame.left), Math.min(right, frame.right)]
        if (y || clips(style)) [top, bottom] = [Math.max(top, frame.top), Math.min(bottom, frame.bottom)]
      }
      if (right - left < 1 || bottom - top < 1) continue // scrolled out of sight
      const page = left < -1 || right > innerWidth + 1 ? 'page' : ''
      texts.push({ e, text: node.data.trim().slice(0, 40), left, top, right, bottom, cut: cut || page, layer: layered(e), size: painted(e) })
    }
  }
  const found = []
  for (const one of texts) {
    if (one.cut) found.push(['cut', one.text, one.cut])
    if (one.size < 11.9) found.push(['small', one.text, one.size.toFixed(1)])
  }
  for (const [i, a] of texts.entries())
    for (const b of texts.slice(0, i)) {
      if (a.layer !== b.layer || a.e === b.e || a.e.contains(b.e) || b.e.contains(a.e)) continue
      const [h, k] = [0.18 * (a.bottom - a.top), 0.18 * (b.bottom - b.top)]
      const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left)
      const high = Math.min(a.bottom - h, b.bottom - k) - Math.max(a.top + h, b.top + k)
      if (wide > 1.5 && high > 1.5) found.push(['over', a.text, b.text])
    }
  return found
}
