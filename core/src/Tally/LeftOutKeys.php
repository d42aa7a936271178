<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\Columns;

/**
 * The keys of rows that steps left out, as far as the key columns stood among the cells of the step. A row that has no counterpart is then
 * told that a step took it away. Holds 16 bytes and an array slot for each key.
 */
final class LeftOutKeys
{
    /** Beyond this many the list of rows that were left out says it. */
    private const MOST = 1_000_000;

    /** @var array<string, int>|null hash of the canonical key => number of the step; null while nobody has asked */
    private ?array $steps = null;

    /** @param non-empty-list<string> $names of the key, on this side */
    public function __construct(private readonly PreparedReader $reader, private readonly array $names, private readonly KeyForm $form) {}

    /** @return array{step: int, does: string}|null which step left the row of this key out; null when none did */
    public function step(string $canonicalKey): ?array
    {
        $number = ($this->steps ??= $this->read())[self::hash($canonicalKey)] ?? null;
        foreach ($number === null ? [] : $this->reader->ledger->steps as $step) {
            if ($step['number'] === $number) {
                return ['step' => $number, 'does' => $step['sentence']];
            }
        }

        return null;
    }

    /** @return array<string, int> */
    private function read(): array
    {
        $places = [];
        foreach ($this->reader->ledger->steps as $step) {
            $columns = Columns::named('', $step['columns']);
            if (
                $step['figures']['leftOut'] > 0 &&
                array_filter($this->names, static fn(string $name): bool => ! $columns->has($name)) === []
            ) {
                $places[$step['number']] = $columns->positionsOf($this->names);
            }
        }
        $keys = [];
        foreach ($places === [] ? [] : $this->reader->side()->leftOut() as $row) {
            if (isset($places[$row->step]) && count($keys) < self::MOST) {
                $keys[
                    self::hash($this->form->canonical(array_map(static fn(int $place): string => $row->cells[$place], $places[$row->step])))
                ] = $row->step;
            }
        }

        return $keys;
    }

    private static function hash(string $key): string
    {
        return hash('xxh128', $key, true);
    }
}
