<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;

/** A cell as a formula sees it, read by what its column declares. */
final readonly class CellValue
{
    private function __construct(private Wanted $wanted, private Reading $text, private ?Reading $number, private ?Reading $date) {}

    /** @return self|null null where nothing is declared, so that the cell is what it is */
    public static function of(string $column, Wanted $wanted, ?StepContext $context): ?self
    {
        $declared = $context?->forms?->declared($column) ?? [];
        if ($context === null || $declared === []) {
            return null;
        }

        return new self(
            $wanted,
            $context->reading($column, Kind::Text),
            array_intersect_key($declared, array_flip(DeclaredForms::NUMBERS)) !== [] ? $context->reading($column, Kind::Number) : null,
            array_intersect_key($declared, array_flip(DeclaredForms::DATES)) !== [] ? $context->reading($column, Kind::Date) : null,
        );
    }

    /** @throws FormulaError when it cannot be read as it is wanted */
    public function read(string $cell): string
    {
        if ($this->text->isBlank($cell)) {
            return '';
        }

        return match ($this->wanted) {
            Wanted::Text => $cell,
            Wanted::Number => $this->number === null
                ? $cell
                : $this->asNumber($cell) ?? throw FormulaError::because('a value is no number'),
            Wanted::Date => $this->date === null ? $cell : $this->asDate($cell) ?? throw FormulaError::because('a value is no date'),
            Wanted::Value => $this->asNumber($cell) ?? $this->asDate($cell) ?? $cell,
        };
    }

    private function asNumber(string $cell): ?string
    {
        $number = $this->number?->number($cell)?->toBigDecimal();

        return $number === null ? null : Functions::written($number);
    }

    private function asDate(string $cell): ?string
    {
        $moment = $this->date?->moment($cell);

        return $moment === null ? null : gmdate('Y-m-d', $moment->days * Moment::SECONDS_OF_DAY);
    }
}
