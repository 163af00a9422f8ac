"""SVG files that are right, of every kind that is read."""

_HEAD = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'

SAMPLES = (
    f'<svg {_HEAD} viewBox="0 0 64 64"><defs><g id="a"><circle r="9" fill="#B8452E"/></g></defs>'
    '<use xlink:href="#a" x="20" y="20"/><use href="#a" transform="rotate(30) scale(2)"/></svg>',
    f'<svg {_HEAD} width="1in" height="30mm"><style>.a{{fill:red}} #b,rect{{stroke:blue}}</style>'
    '<path class="a" d="M1 2h3v4a5 6 7 0 1 8 9c1 2 3 4 5 6s7 8 9 1q2 3 4 5t6 7z"/>'
    '<rect id="b" x="1" y="2" width="30" height="20" rx="4" ry="5" style="opacity:.5"/></svg>',
    f'<svg {_HEAD}><clipPath id="c"><circle cx="5" cy="5" r="5"/></clipPath>'
    '<g clip-path="url(#c)" transform="matrix(1 0 0 1 2 3)"><ellipse rx="4" ry="2"/>'
    '<polygon points="0,0 10,0 10,10" fill-rule="evenodd"/></g></svg>',
    f'<svg {_HEAD}><symbol id="s" viewBox="0 0 10 20">'
    '<line x2="5" y2="6" stroke="#123456"/></symbol>'
    '<use href="#s" width="30" height="30"/><linearGradient id="g"><stop stop-color="red"/>'
    '</linearGradient><polyline points="1 2 3 4" stroke="url(#g)" stroke-width="2"/></svg>',
    f'<svg {_HEAD}><linearGradient id="g"><stop offset="10%" stop-color="red"/>'
    '<stop offset="1" stop-color="#1D6A83" stop-opacity=".4"/></linearGradient>'
    '<radialGradient id="r" href="#g" gradientUnits="userSpaceOnUse" cx="9" cy="8" r="7" '
    'gradientTransform="rotate(30)"/><circle cx="5" cy="5" r="5" fill="url(#r)"/>'
    '<rect width="9" height="4" transform="scale(2 3)" fill="url(#g)"/></svg>',
)
