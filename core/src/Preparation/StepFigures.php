<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/** What a step did: `in + made = out + left out + merged`. */
final class StepFigures
{
    /** Values that are listed, each with its count: enough to act on. */
    private const VALUES_LISTED = 1_000;

    private const VALUE_BYTES = 200;

    public int $in = 0;

    public int $made = 0;

    public int $condensed = 0;

    public int $leftOut = 0;

    public int $out = 0;

    public int $altered = 0;

    /** @var array<string, int> altered cells by column, as the step gives them on */
    public array $alteredOf = [];

    /** @var array<string, int> what else is worth knowing, such as "unreadable" => cells */
    public array $notes = [];

    /** @var array<string, array<string, int>> by note: the values it is about, each with its count */
    public array $values = [];

    public function note(string $what, ?string $value = null): void
    {
        $this->notes[$what] = ($this->notes[$what] ?? 0) + 1;
        if ($value === null) {
            return;
        }
        $value = strlen($value) > self::VALUE_BYTES ? mb_strcut($value, 0, self::VALUE_BYTES).'…' : $value;
        if (isset($this->values[$what][$value]) || count($this->values[$what] ?? []) < self::VALUES_LISTED) {
            $this->values[$what][$value] = ($this->values[$what][$value] ?? 0) + 1;
        }
    }

    /** A cell was given another value; where several columns are filled from one record, that is one alteration. */
    public function alter(string ...$columns): void
    {
        $this->altered++;
        foreach ($columns as $column) {
            $this->alteredOf[$column] = ($this->alteredOf[$column] ?? 0) + 1;
        }
    }

    public function addsUp(): bool
    {
        return $this->in + $this->made === $this->out + $this->leftOut + $this->condensed;
    }

    /**
     * @return array{in: int, made: int, condensed: int, leftOut: int, out: int, altered: int, alteredOf: array<string, int>,
     *     notes: array<string, int>, values: array<string, array<string, int>>}
     */
    public function toArray(): array
    {
        return [
            'in' => $this->in,
            'made' => $this->made,
            'condensed' => $this->condensed,
            'leftOut' => $this->leftOut,
            'out' => $this->out,
            'altered' => $this->altered,
            'alteredOf' => $this->alteredOf,
            'notes' => $this->notes,
            'values' => $this->values,
        ];
    }
}
