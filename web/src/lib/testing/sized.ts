/** jsdom lays nothing out: drawings get a size to draw to. */
export function sized(width: number, height: number) {
  const sizes = { clientWidth: width, clientHeight: height }
  for (const [name, px] of Object.entries(sizes))
    Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => px })
}
