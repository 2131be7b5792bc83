"""`python -m machinon` is the same as `machinon`."""

from machinon.main import main

raise SystemExit(main())
