<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Value\DateForm;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * What a side declares about its rows and values: for all its columns, and for single ones.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class SideRules
{
    public RepeatsPolicy $repeats;

    /** The steps, which read by what is declared here. */
    public Preparation $preparation;

    /**
     * @param  Declared  $declared
     * @param  array<string, Declared>  $columns  by column name: what is declared otherwise there
     * @param  list<ChosenRow>  $keptRows  what people chose of rows that share a key
     */
    public function __construct(
        public array $declared = [],
        public array $columns = [],
        ?RepeatsPolicy $repeats = null,
        Preparation $preparation = new Preparation,
        public array $keptRows = [],
    ) {
        $this->preparation =
            $declared === [] && $columns === [] ? $preparation : $preparation->under(DeclaredForms::of($declared, $columns));
        $this->repeats = $repeats ?? RepeatsPolicy::setAside();
    }

    /** With the steps before one of them alone; with all where there is no such step. */
    public function before(?string $step): self
    {
        return new self($this->declared, $this->columns, $this->repeats, $this->preparation->before($step), $this->keptRows);
    }

    /** How the values of a column are read when all steps have run, as the kind that its pair gives it. */
    public function reading(string $column, Kind $kind): Reading
    {
        return $this->preparation->formsBehind()->reading($column, $kind);
    }

    /** @return list<Problem> what no reading can be made of */
    public function problems(string $pointer): array
    {
        $problems = [];
        foreach (['' => []] + $this->columns as $column => $ofColumn) {
            $place = $column === '' ? $pointer : "{$pointer}/columns/".strtr((string) $column, ['~' => '~0', '/' => '~1']);
            $declared = [...$this->declared, ...$ofColumn];
            foreach ($declared['dateForms'] ?? [] as $position => $pattern) {
                try {
                    DateForm::of($pattern, $declared['twoDigitYearsFrom'] ?? null);
                } catch (\NineTally\Core\NineTallyException $problem) {
                    $problems[] = new Problem("{$place}/dateForms/{$position}", $problem->getMessage());
                }
            }
            $zone = $declared['zone'] ?? null;
            if ($zone !== null && ! in_array($zone, \DateTimeZone::listIdentifiers(\DateTimeZone::ALL_WITH_BC), true)) {
                $problems[] = new Problem(
                    "{$place}/zone",
                    sprintf('"%s" is no time zone. Name one of the IANA time zone database, such as Europe/London.', Excerpt::of($zone)),
                );
            }
            $words = array_intersect(
                array_map(mb_strtolower(...), $declared['yes'] ?? Reading::YES),
                array_map(mb_strtolower(...), $declared['no'] ?? Reading::NO),
            );
            if ($words !== []) {
                $problems[] = new Problem(
                    "{$place}/yes",
                    sprintf('"%s" cannot mean both yes and no. Take it out of one of them.', reset($words)),
                );
            }
            if (($declared['decimalMark'] ?? '.') === ($declared['groupMark'] ?? '')) {
                $problems[] = new Problem(
                    "{$place}/groupMark",
                    sprintf('"%s" cannot both mark the decimals and group the digits.', $declared['groupMark'] ?? ''),
                );
            }
        }

        return $problems;
    }

    public function isDefault(): bool
    {
        return $this->declared === [] && $this->columns === [] && $this->repeats->isDefault() && $this->preparation->steps === [];
    }

    /** @return array<string, mixed> as the plan writes it; what is as it would be by itself is left out */
    public function toArray(): array
    {
        return [
            ...$this->declared,
            ...array_filter(['preparation' => $this->preparation->steps, 'columns' => $this->columns]),
            ...($this->repeats->isDefault() ? [] : ['repeats' => $this->repeats->toArray()]),
        ];
    }
}
