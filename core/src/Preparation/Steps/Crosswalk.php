<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\CellByCell;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;

/** Puts the target's value for the source's, as a table says. */
final class Crosswalk extends CellByCell
{
    public const WITHOUT_ENTRY = 'without entry';

    /** @param array<string, string> $entries */
    public function __construct(string $column, private readonly array $entries, private readonly bool $blanksOthers)
    {
        parent::__construct([$column]);
    }

    public function sentence(): string
    {
        $shown = array_slice($this->entries, 0, 2, true);
        $words = array_map(static fn(int|string $from, string $to): string => "\"{$from}\" becomes \"{$to}\"", array_keys($shown), $shown);

        return "Crosswalk {$this->chosen[0]}: ".
            implode(', ', $words).
            (count($this->entries) > 2 ? sprintf(' and %d more', count($this->entries) - 2) : '');
    }

    protected function alteration(string $column, StepContext $context): \Closure
    {
        [$entries, $blanks, $figures] = [$this->entries, $this->blanksOthers, $context->figures];
        $reading = $context->reading($this->chosen[0], Kind::Text);

        return static function (string $cell) use ($entries, $blanks, $figures, $reading): string {
            if (isset($entries[$cell])) {
                return $entries[$cell];
            }
            if ($reading->isBlank($cell)) {
                return $entries[''] ?? ($blanks ? '' : $cell);
            }
            $figures->note(self::WITHOUT_ENTRY, $cell);

            return $blanks ? '' : $cell;
        };
    }
}
