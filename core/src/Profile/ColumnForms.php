<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Kind;
use NineTally\Core\Value\YesNoWords;

/** In which declared forms the values of a column could be read: proposed to a person, never taken by itself. */
final class ColumnForms
{
    /** Of a hundred different values so many may be left unread; a column that is not of the kind has more. */
    private const MOST_UNREAD_PERCENT = 5;

    private const MOST_WORDS = 4;

    private readonly DateWritings $dates;

    private readonly NumberWritings $numbers;

    /** @var array<string, true>|null different values; null once there are too many for words of yes and no */
    private ?array $words = [];

    private int $seen = 0;

    private int $plainNumbers = 0;

    private int $plainDates = 0;

    public function __construct()
    {
        $this->dates = new DateWritings;
        $this->numbers = new NumberWritings;
    }

    /** A value that can be read without a form, as a plain number, an ISO date, or neither. */
    public function see(string $value, bool $isPlainNumber, bool $isDate): void
    {
        $this->seen++;
        $this->plainNumbers += $isPlainNumber ? 1 : 0;
        $this->plainDates += $isDate ? 1 : 0;
        $this->dates->see($value, $isPlainNumber);
        $this->numbers->see($value, $isPlainNumber);
        if ($this->words !== null) {
            $this->words[$value] = true;
            $this->words = count($this->words) > self::MOST_WORDS ? null : $this->words;
        }
    }

    /** @return list<PossibleReading> the likeliest first; several where the values fit several readings that disagree */
    public function readings(): array
    {
        $dates = $this->plainDates === $this->seen ? [] : $this->dates->readings();
        $numbers = $this->plainNumbers === $this->seen ? [] : $this->numbers->readings();
        $readings = array_filter(
            [...$this->yesOrNo(), ...$dates, ...$numbers],
            fn(PossibleReading $one): bool => $one->unread * 100 <= self::MOST_UNREAD_PERCENT * $this->seen,
        );
        // What reads fewer of the values is no rival of what reads more.
        $fewest =
            $readings === []
                ? 0
                : min(array_map(static fn(PossibleReading $one): int => $one->isWeak ? PHP_INT_MAX : $one->unread, $readings));

        return array_values(array_filter($readings, static fn(PossibleReading $one): bool => $one->isWeak || $one->unread === $fewest));
    }

    /** @return list<PossibleReading> */
    private function yesOrNo(): array
    {
        $words = $this->words === null ? null : YesNoWords::among(array_map(strval(...), array_keys($this->words)));

        return $words === null || YesNoWords::needNoDeclaration($words[0][0], $words[1][0])
            ? []
            : [new PossibleReading(Kind::YesNo, ['yes' => $words[0], 'no' => $words[1]])];
    }
}
