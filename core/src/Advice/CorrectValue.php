<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\CrosswalkEntries;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Value\DayNumber;
use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Reading;

/**
 * What must stand in the target where the source has a value: the entry of the crosswalk, or the value in the form that the target
 * declares. It is
 * held against the source by the comparison itself, and said only if both then agree.
 */
final readonly class CorrectValue
{
    private ?CrosswalkEntries $entries;

    private ColumnComparison $comparison;

    public function __construct(
        private ColumnPair $pair,
        private Reading $source,
        private Reading $target,
        CauseCatalogue $catalogue = new CauseCatalogue,
    ) {
        $this->entries = $pair->crosswalk === [] ? null : new CrosswalkEntries($pair, $source, $catalogue->forms);
        $this->comparison = new ColumnComparison($pair, $source, $target, $catalogue);
    }

    /** @return string|null null where it cannot be said for certain */
    public function of(string $value): ?string
    {
        $wanted = $this->entries?->target($value) ?? $this->written($value);
        $agrees = static fn(CellClass $class): bool => $class === CellClass::Identical || $class === CellClass::Forgiven;

        return $wanted !== null && $agrees($this->comparison->classify($value, $wanted)->class) ? $wanted : null;
    }

    private function written(string $value): ?string
    {
        if ($this->source->isBlank($value)) {
            return '';
        }

        return match ($this->pair->kind) {
            Kind::Text => $value,
            Kind::Number => $this->number($this->source->number($value)),
            Kind::Date, Kind::DateTime => $this->moment($value, $this->source->moment($value)),
            Kind::YesNo => match ($this->source->yesOrNo($value)) {
                true => $this->target->yes[0] ?? null,
                false => $this->target->no[0] ?? null,
                null => null,
            },
        };
    }

    private function number(?Decimal $number): ?string
    {
        return $number === null ? null : $this->target->numbers->written($number);
    }

    /** In the first form that the target declares; as ISO 8601 where it declares none. */
    private function moment(string $value, ?Moment $moment): ?string
    {
        if ($moment === null) {
            return null;
        }
        if ($this->target->moment($value)?->isEqualTo($moment) === true) {
            return $value;
        }
        $dayNumber = DayNumber::tryFrom($this->target->dateForms[0]->pattern ?? '');
        if ($dayNumber !== null) {
            return $dayNumber->written($moment);
        }
        $pattern = $this->target->dateForms[0]->pattern ?? ($moment->isDay() ? 'yyyy-MM-dd' : "yyyy-MM-dd'T'HH:mm:ss");
        $formatter = new \IntlDateFormatter(
            'en',
            \IntlDateFormatter::NONE,
            \IntlDateFormatter::NONE,
            'UTC',
            \IntlDateFormatter::GREGORIAN,
            $pattern,
        );
        $written = $formatter->format($moment->secondsSinceEpoch());

        return is_string($written) ? $written : null;
    }
}
