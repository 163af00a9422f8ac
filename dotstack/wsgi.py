"""For servers of WSGI (PEP 3333) that begin processes of their own, such as gunicorn.

``gunicorn --workers 4 --threads 32 'dotstack.wsgi:application("--folder /srv/dotstack")'``
"""

from dotstack.cli.serving import application

__all__ = ["application"]
