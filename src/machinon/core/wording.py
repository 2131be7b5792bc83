"""Words as they stand at the start of a sentence, or in the middle of one."""


def begun(words: str) -> str:
    """The words as a sentence begins; the rest stays as it is: `Thread M45`."""
    return words[:1].upper() + words[1:]


def within(name: str) -> str:
    """A name in the middle of a sentence: `register`; but `T-slot`, `M8 screw`."""
    begins = name[1:2].islower() or name.startswith("A ")
    return name[:1].lower() + name[1:] if begins else name
