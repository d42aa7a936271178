<?php

declare(strict_types=1);

namespace NineTally\Core\Wording;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\Side;

/**
 * Says facts in English: the one place that does, for screens, reports, files and the command line. What is kept are facts, so another
 * language is another class of this kind. What causes say stands with each cause.
 */
final readonly class Sentences
{
    private const TOLD_OF_A_KIND = 20;

    /** What is known of a row beside its class; null when there is nothing to say. */
    public function remark(RowFinding $row): ?string
    {
        $reason = $row->reason === null ? null : $this->reason($row->reason, $row->reasonFacts);

        return match (true) {
            $row->kept !== null => sprintf(
                'Not kept: of the rows of this side with its key, the one of line %s%s was kept.',
                number_format($row->kept->line),
                $row->kept->part === 1 ? '' : " of part {$row->kept->part}",
            ).($row->reason === RowReason::Undecided ? " It is the first of several, for {$reason}." : ''),
            $row->reason === RowReason::SetAside => 'Set aside: '.$reason.'.',
            $reason !== null => sprintf(
                '%s on the other side: %s.',
                $row->class === RowClass::Missing ? 'Missing' : 'Without a counterpart',
                $reason,
            ),
            $row->isBridged => 'Joined by a bridge.',
            default => null,
        };
    }

    /** @param array<string, string|int> $facts as the reason names them */
    public function reason(RowReason $reason, array $facts): string
    {
        return match ($reason) {
            RowReason::FewerRows => 'its key stands there in fewer rows',
            RowReason::IdleBridge => 'its bridge joined nothing',
            RowReason::SetAside => 'no row with its key is compared',
            RowReason::NotKept => 'another row of its side with its key was kept',
            RowReason::NotChosen => 'another row of its side with its key was chosen by hand',
            RowReason::Undecided => 'no column decides between them',
            RowReason::LeftOut => sprintf('its key was left out there by step %d', $facts['step'] ?? 0).
                (isset($facts['does']) ? ": {$facts['does']}" : ''),
        };
    }

    /** Some rows of a class, by what a filter says of them. */
    public function slice(?RowReason $reason, ?Side $side, ?int $part, string $label, bool $isBridged): string
    {
        return match (true) {
            $reason === RowReason::LeftOut => 'their key was left out on the other side by a step',
            $reason === RowReason::FewerRows => 'their key stands on the other side in fewer rows',
            $reason === RowReason::IdleBridge => 'their bridge joined nothing',
            $reason === RowReason::SetAside => 'set aside: no row with their key is compared',
            $reason === RowReason::NotKept => 'not kept: another row of their side with their key was kept',
            $reason === RowReason::NotChosen => 'not kept: another row of their side with their key was chosen by hand',
            $reason === RowReason::Undecided => 'not kept: no column decides between them and the one that was kept',
            $part !== null => sprintf('part %d of the %s%s', $part, $side->value ?? '', $label === '' ? '' : ": {$label}"),
            $isBridged => 'joined by a bridge',
            default => sprintf('of the %s', $side->value ?? ''),
        };
    }

    /** @param array<string, string|int> $facts as the reason names them */
    public function refusal(RefusalReason $reason, array $facts): string
    {
        $lines = (int) ($facts['lines'] ?? 1);
        $held = $lines > 1 ? sprintf(', in a record that a quote holds together over %s lines', number_format($lines)) : '';

        return match ($reason) {
            RefusalReason::WrongNumberOfCells => sprintf('%d cells where the header has %d', $facts['cells'] ?? 0, $facts['columns'] ?? 0).
                $held,
            RefusalReason::UndecodableBytes => isset($facts['encoding'])
                ? "bytes that are not {$facts['encoding']} text"
                : $this->noObject($facts),
            RefusalReason::TextAfterQuote => 'text follows a closing quote'.$held,
            RefusalReason::OverRowLimit => sprintf('longer than the row limit of %s bytes', number_format((int) ($facts['limit'] ?? 0))).
                $held,
            RefusalReason::QuoteLeftOpen => sprintf(
                'a quote that is opened on this line is never closed, and %s: close it, or double it where it belongs to the value',
                $lines === 1
                    ? 'what follows on it is lost'
                    : sprintf('all %s lines to the end of the file are held in it', number_format($lines)),
            ),
            RefusalReason::NotAnObject => $this->noObject($facts),
        };
    }

    /**
     * Warnings as a person reads them: of those of one kind that are many the first are told, and how many more there are.
     *
     * @param  list<Warning>  $warnings
     * @return list<string>
     */
    public function warnings(array $warnings): array
    {
        $ofKind = [];
        foreach ($warnings as $warning) {
            $ofKind[$warning->kind->value][] = $warning;
        }
        $told = [];
        foreach ($ofKind as $alike) {
            array_push($told, ...array_map($this->warning(...), array_slice($alike, 0, self::TOLD_OF_A_KIND)));
            $more = count($alike) - self::TOLD_OF_A_KIND;
            if ($more > 0) {
                $told[] = 'And '.$this->counted($more, 'more warning', 'more warnings').' of this kind.';
            }
        }

        return $told;
    }

    public function warning(Warning $warning): string
    {
        $facts = $warning->facts;
        $side = (string) ($facts['side'] ?? '');
        $number = static fn(string $name): int => (int) ($facts[$name] ?? 0);

        return match ($warning->kind) {
            WarningKind::NoRows => "The {$side} delivers no rows: the file holds a header only.",
            WarningKind::EverythingLeftOut => sprintf(
                'The steps leave out every row of the %s%s, so nothing could be compared.',
                $side,
                isset($facts['step']) ? sprintf(' (the last of them by step %d: %s)', $facts['step'], $facts['does'] ?? '') : '',
            ),
            WarningKind::EverythingRepeated
                => "Every row of the {$side} shares its key with another row, so nothing could be compared. Choose a key that tells rows ".
                    "apart.",
            WarningKind::QuoteLeftOpen
                => "A quote in the {$side} is opened and never closed: all that follows it in its file is one refused record, listed ".
                    "with its line. Close it, or double it where it belongs to the value, and deliver the file again.",
            WarningKind::RepeatedHereOnly => sprintf(
                '%s in the %s and %s no counterpart on the other side: their rows are counted as repeated, not as %s.',
                $this->keysRepeat($number('keys')),
                $side,
                $number('keys') === 1 ? 'has' : 'have',
                $side === 'source' ? 'missing' : 'extra',
            ),
            WarningKind::RepeatedByForgiving => sprintf(
                '%s in the %s only because the key forgives: as delivered, they are different.',
                $this->keysRepeat($number('keys')),
                $side,
            ),
            WarningKind::PartlyBlankKeys => sprintf(
                '%s a partly blank key.',
                $this->counted($number('rows'), "row of the {$side} has", "rows of the {$side} have"),
            ),
            WarningKind::WithoutEntry => $this->withoutEntry(
                (string) ($facts['column'] ?? ''),
                $number('cells'),
                isset($facts['values']) ? $number('values') : null,
            ),
            WarningKind::Undecided => sprintf(
                '%s in the %s that no column decides: the first row of each was kept.',
                $this->keysRepeat($number('keys')),
                $side,
            ),
            WarningKind::AgreesButLeftOut => sprintf(
                'All that was compared agrees. By decision, steps left out %s of the source and %s of the target.',
                $this->counted($number('source'), 'row', 'rows'),
                $this->counted($number('target'), 'row', 'rows'),
            ),
            WarningKind::ReopenedChoice => sprintf(
                'The row of the %s that was chosen by hand for %s is not kept: the rows with this key are not the same any more. '.
                    'What becomes of them is as for all others, until a row is chosen again.',
                $facts['side'] ?? '',
                $facts['key'] ?? '',
            ),
            WarningKind::IdleChoice => sprintf(
                'A row of the %s was chosen by hand for %s, and no rows share this key any more.',
                $facts['side'] ?? '',
                $facts['key'] ?? '',
            ),
            WarningKind::IdleBridge => sprintf(
                'The bridge from %s to %s joined nothing: one of its keys has a counterpart, or no row of its own.',
                $facts['source'] ?? '',
                $facts['target'] ?? '',
            ),
        };
    }

    private function withoutEntry(string $column, int $cells, ?int $values): string
    {
        $isOne = $values === 1;

        return sprintf(
            '%s of "%s" in %s %s no entry in its crosswalk and %s compared as delivered.',
            $values === null ? 'Very many values' : $this->counted($values, 'value', 'values'),
            $column,
            $this->counted($cells, 'cell', 'cells'),
            $isOne ? 'has' : 'have',
            $isOne ? 'was' : 'were',
        );
    }

    /** @param array<string, string|int> $facts */
    private function noObject(array $facts): string
    {
        return 'is no JSON object'.(isset($facts['error']) ? ": {$facts['error']}" : '');
    }

    private function keysRepeat(int $keys): string
    {
        return $this->counted($keys, 'key repeats', 'keys repeat');
    }

    private function counted(int $count, string $one, string $many): string
    {
        return number_format($count).' '.($count === 1 ? $one : $many);
    }
}
