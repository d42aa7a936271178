<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Reading;

/**
 * What the target demands of a column's values.
 *
 * @phpstan-type DemandDocument array{required?: bool, mostCharacters?: int, mostBytes?: int, allowed?: list<string>, digits?: int,
 *     decimals?: int}
 */
final readonly class ColumnConstraint
{
    /** @var array<string, true>|null */
    private ?array $allowed;

    /** @param DemandDocument $document of numbers: all digits, and those behind the point, as in NUMERIC(digits, decimals) */
    private function __construct(private array $document, private Reading $reading)
    {
        $this->allowed = isset($document['allowed']) ? array_fill_keys($document['allowed'], true) : null;
    }

    /** @param DemandDocument $document */
    public static function of(array $document, Reading $reading = new Reading): self
    {
        return new self($document, $reading);
    }

    /**
     * @return list<string> which parts of the demand the value does not meet, by their names in the plan; a blank value can only be
     *     required
     */
    public function unmetBy(string $value): array
    {
        if ($this->reading->isBlank($value)) {
            return ($this->document['required'] ?? false) ? ['required'] : [];
        }
        $unmet = [];
        if (isset($this->document['mostCharacters']) && mb_strlen($value) > $this->document['mostCharacters']) {
            $unmet[] = 'mostCharacters';
        }
        if (isset($this->document['mostBytes']) && strlen($value) > $this->document['mostBytes']) {
            $unmet[] = 'mostBytes';
        }
        if ($this->allowed !== null && ! isset($this->allowed[$value])) {
            $unmet[] = 'allowed';
        }

        return [...$unmet, ...$this->unmetByNumber($value)];
    }

    /** @return list<string> */
    private function unmetByNumber(string $value): array
    {
        [$digits, $decimals] = [$this->document['digits'] ?? null, $this->document['decimals'] ?? null];
        if ($digits === null && $decimals === null) {
            return [];
        }
        $number = $this->reading->number($value);
        if ($number === null) {
            return ['number'];
        }
        $unmet = [];
        if ($decimals !== null && $number->places() > $decimals) {
            $unmet[] = 'decimals';
        }
        // NUMERIC(7, 2) has five digits before the point, whatever stands behind it.
        if ($digits !== null && ! $number->isZero() && max(0, strlen($number->digits) + $number->exponent) > $digits - ($decimals ?? 0)) {
            $unmet[] = 'digits';
        }

        return $unmet;
    }
}
