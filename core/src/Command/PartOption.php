<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\PartFormat;

/** One file of a side or a reference, as the command line or a folder of a tally names it. */
final readonly class PartOption
{
    /** @param PartFormat|null $format null: it is found */
    public function __construct(public string $path, public string $name, public string $label, public ?PartFormat $format = null) {}

    /** "label=file" gives the rows a label; without one they bear the name of the file. */
    public static function read(string $argument): self
    {
        [$label, $path] = [...explode('=', $argument, 2), ''];

        // A file may have such a name itself.
        return $path === '' || is_file($argument)
            ? new self($argument, $argument, pathinfo($argument, PATHINFO_FILENAME))
            : new self($path, $path, $label);
    }
}
