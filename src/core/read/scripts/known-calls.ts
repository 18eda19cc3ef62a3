// What scripts may call without doing anything to styles, or what the other readers of this folder follow: the language's
// own, the browser's, and those of the common way to chain sets of elements.

const ELEMENTS = `
addEventListener removeEventListener dispatchEvent attachEvent detachEvent preventDefault stopPropagation
stopImmediatePropagation initEvent createEvent composedPath
querySelector querySelectorAll getElementById getElementsByTagName getElementsByTagNameNS getElementsByClassName
getElementsByName matches webkitMatchesSelector msMatchesSelector closest contains compareDocumentPosition isEqualNode
isSameNode elementFromPoint elementsFromPoint item namedItem getRootNode assignedElements assignedNodes
getAttribute getAttributeNS setAttribute setAttributeNS removeAttribute removeAttributeNS toggleAttribute hasAttribute
hasAttributeNS hasAttributes hasChildNodes evaluate snapshotItem iterateNext
createElement createElementNS createTextNode createDocumentFragment createComment cloneNode importNode
append appendChild prepend before after insertBefore insertAdjacentHTML insertAdjacentElement insertAdjacentText
replaceWith replaceChild replaceChildren removeChild remove write writeln moveBefore attachShadow
insertRow deleteRow insertCell deleteCell createCaption createTHead createTFoot createTBody deleteCaption deleteTHead
deleteTFoot add toggle replace supports
insertRule deleteRule addRule removeRule replaceSync setProperty removeProperty getPropertyValue getPropertyPriority
getComputedStyle getBoundingClientRect getClientRects getBBox getTotalLength getPointAtLength getScreenCTM
scrollTo scrollBy scroll scrollIntoView scrollIntoViewIfNeeded focus blur click submit requestSubmit reset select
checkValidity reportValidity setCustomValidity setSelectionRange setRangeText stepUp stepDown showPicker showModal show
close showPopover hidePopover togglePopover setPointerCapture releasePointerCapture requestFullscreen exitFullscreen
requestPointerLock getSelection createRange selectNode selectNodeContents collapse removeAllRanges addRange cloneRange
setStart setEnd setStartBefore setStartAfter setEndBefore setEndAfter createTreeWalker createNodeIterator nextNode
previousNode animate getAnimations startViewTransition play pause load canPlayType getContext toDataURL toBlob
observe unobserve disconnect takeRecords define whenDefined get upgrade attachInternals setFormValue setValidity`;

const BROWSER = `
setTimeout clearTimeout setInterval clearInterval setImmediate requestAnimationFrame cancelAnimationFrame
webkitRequestAnimationFrame mozRequestAnimationFrame requestIdleCallback cancelIdleCallback queueMicrotask
structuredClone alert confirm prompt print open stop matchMedia addListener removeListener postMessage
requestPermission fetch send abort setRequestHeader getResponseHeader getAllResponseHeaders overrideMimeType json text
blob arrayBuffer formData getReader read cancel releaseLock getItem setItem removeItem clear key pushState replaceState
go back forward assign reload log warn error info debug dir table time timeEnd trace group groupEnd assert count
now mark measure getEntriesByType getEntriesByName createObjectURL revokeObjectURL readAsText readAsDataURL
readAsArrayBuffer sendBeacon vibrate share canShare writeText readText register unregister getRegistrations
getRegistration skipWaiting waitUntil respondWith getCurrentPosition watchPosition clearWatch getUserMedia
enumerateDevices getGamepads terminate importScripts transaction objectStore put createObjectStore createIndex
getRandomValues randomUUID digest encode decode escape unescape atob btoa getAll
parseFloat parseInt isNaN isFinite encodeURIComponent decodeURIComponent encodeURI decodeURI require exports
Event CustomEvent MouseEvent KeyboardEvent PointerEvent TouchEvent InputEvent FocusEvent UIEvent WheelEvent Image Audio
Option FormData URLSearchParams URL Headers Request Response AbortController XMLHttpRequest ActiveXObject WebSocket
EventSource Worker SharedWorker BroadcastChannel MessageChannel FileReader Blob File IntersectionObserver
ResizeObserver MutationObserver PerformanceObserver TextEncoder TextDecoder Notification Path2D OffscreenCanvas ImageData
DOMRect DOMPoint DOMMatrix DOMException AudioContext webkitAudioContext SpeechSynthesisUtterance speak XMLSerializer
serializeToString CSSStyleSheet getAsString getAsFile setData getData clearData setDragImage`;

const CANVAS = `
fillRect strokeRect clearRect fillText strokeText measureText beginPath closePath moveTo lineTo arc arcTo bezierCurveTo
quadraticCurveTo ellipse rect roundRect fill stroke clip drawImage createImageData getImageData putImageData save restore
scale rotate translate transform setTransform resetTransform createLinearGradient createRadialGradient createPattern
addColorStop setLineDash getLineDash isPointInPath`;

const SETS = `
$ jQuery on off one ready bind unbind delegate undelegate live die trigger triggerHandler hover toggleClass addClass
removeClass hasClass attr removeAttr prop removeProp val data removeData css html text each is not eq has first last
parents parent parentsUntil children siblings next nextAll nextUntil prev prevAll prevUntil offsetParent contents
addBack andSelf end index size appendTo prependTo insertAfter detach empty wrap wrapAll wrapInner unwrap replaceAll
hide fadeIn fadeOut fadeTo fadeToggle slideUp slideDown slideToggle delay queue dequeue finish width height
innerWidth innerHeight outerWidth outerHeight offset position scrollTop scrollLeft ajax post getJSON getScript ajaxSetup
ajaxStart ajaxStop ajaxComplete serialize serializeArray param extend proxy isFunction isArray isPlainObject isNumeric
isEmptyObject inArray makeArray merge grep unique type trim noop noConflict holdReady when done fail always then promise
Deferred resolve resolveWith reject rejectWith progress notify change keyup keydown keypress input mouseenter mouseleave
mouseover mouseout mousedown mouseup mousemove dblclick contextmenu resize unload focusin focusout toArray pushStack`;

/** Languages have their own in values that are here to ask. What sets properties by a list of them is not among these. */
function ofLanguage(): string[] {
  const made = [
    ...[
      Object,
      Function,
      Array,
      String,
      Number,
      Boolean,
      Symbol,
      Date,
      Promise,
      RegExp,
      Map,
      Set,
      WeakMap,
      WeakSet,
    ],
    ...[ArrayBuffer, DataView, Uint8Array, Error, TypeError, RangeError, SyntaxError, BigInt, Proxy],
  ];
  const names = new Set<string>();
  for (const one of [...made, Math, JSON, Intl]) {
    for (const name of Object.getOwnPropertyNames(one)) names.add(name);
    if (typeof one !== 'function') continue;
    names.add(one.name);
    for (const name of Object.getOwnPropertyNames(one.prototype ?? {})) names.add(name);
  }
  for (const name of Object.getOwnPropertyNames(Object.getPrototypeOf(Uint8Array))) names.add(name);
  for (const name of Object.getOwnPropertyNames(Object.getPrototypeOf(Uint8Array.prototype))) names.add(name);
  for (const name of ['assign', 'defineProperty', 'defineProperties', 'setPrototypeOf', 'caller', 'callee'])
    names.delete(name);
  for (const name of ['next', 'return', 'throw', 'super', 'assign']) names.add(name);
  return [...names];
}

let all: ReadonlySet<string> | undefined;

export function isKnownCall(name: string): boolean {
  all ??= new Set([
    ...[ELEMENTS, BROWSER, CANVAS, SETS].flatMap((text) => text.trim().split(/\s+/)),
    ...ofLanguage(),
  ]);
  return all.has(name);
}
