<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Row\Side;

/** A stretch of the findings of one side, by its lines, as a task of its own. */
final readonly class SliceOfFindings
{
    private function __construct(public Side $side, public int $number, public int $of) {}

    /** @return non-empty-list<self> in the order of the findings: those of the source, then those of the target alone */
    public static function all(int $ofEachSide): array
    {
        $slices = [];
        foreach (Side::cases() as $side) {
            for ($number = 0; $number < max(1, $ofEachSide); $number++) {
                $slices[] = new self($side, $number, max(1, $ofEachSide));
            }
        }

        return $slices;
    }

    public static function isTask(string $task): bool
    {
        return str_starts_with($task, 'slice-');
    }

    public static function ofTask(string $task): self
    {
        [, $side, $number, $of] = explode('-', $task);

        return new self(Side::from($side), (int) $number, (int) $of);
    }

    public function task(): string
    {
        return "slice-{$this->side->value}-{$this->number}-{$this->of}";
    }

    /** @return array{int, int} line of the first that is in it, and of the first behind it */
    public function lines(int $ofSide): array
    {
        $from = intdiv($this->number * ($ofSide + 1), $this->of);

        return [$from, $this->number + 1 === $this->of ? PHP_INT_MAX : intdiv(($this->number + 1) * ($ofSide + 1), $this->of)];
    }
}
