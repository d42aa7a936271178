<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/**
 * All causes in the order in which they are tried: blankness, then what differs in form, alone or together, then the value.
 *
 * A new cause is a class in Rules and a line here.
 */
final readonly class CauseCatalogue
{
    /** Exports carry it: when a cause is added or told apart from another, it rises. */
    public const VERSION = 1;

    /** @var list<CauseRule> */
    private array $blankness;

    private FormCombination $forms;

    /** @var list<CauseRule> */
    private array $values;

    public function __construct()
    {
        $this->blankness = [
            new Rules\Blanked,
            new Rules\Filled,
        ];
        $this->forms = new FormCombination([
            new Rules\Spacing,
            new Rules\LetterCase,
            new Rules\NumberForm,
        ]);
        $this->values = [
            new Rules\NoneFound,
        ];
    }

    /** @param CellPair $pair cells that are not equal as bytes */
    public function explain(CellPair $pair): Cause
    {
        return $this->first($this->blankness, $pair)
            ?? $this->forms->explain($pair)
            ?? $this->first($this->values, $pair)
            ?? throw new \LogicException('The last rule of the catalogue must explain every pair.');
    }

    /** @param list<CauseRule> $rules */
    private function first(array $rules, CellPair $pair): ?Cause
    {
        foreach ($rules as $rule) {
            if (($cause = $rule->explain($pair)) !== null) {
                return $cause;
            }
        }

        return null;
    }
}
