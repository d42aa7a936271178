<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** Says in one sentence what happened, with the figures in it: "cut at 20 characters, in capitals". */
final readonly class CauseSentence
{
    private const UNITS = ['day' => 86_400, 'hour' => 3_600, 'minute' => 60, 'second' => 1];

    /** @param array<string, string|int> $facts */
    public function __construct(private array $facts) {}

    /** @param list<CauseId> $ids */
    public function of(array $ids): string
    {
        $sentence = implode(' and ', array_map($this->one(...), $ids));
        $forms = $this->text('forms');
        $sentence =
            $forms === ''
                ? $sentence
                : $sentence.
                    ', and '.
                    implode(' and ', array_map(static fn(string $form): string => CauseId::from($form)->meaning(), explode('+', $forms)));
        $sentence .= match ($this->text('clock')) {
            'twice' => ', where the clock shows the time twice',
            default => '',
        };

        return $this->text('against') === 'entry' ? $sentence.', held against the entry of the crosswalk' : $sentence;
    }

    private function one(CauseId $id): string
    {
        if ($this->facts === []) {
            return $id->meaning();
        }

        return match ($id) {
            CauseId::Unreadable => match ($this->text('clock')) {
                'skipped' => sprintf('the time of the %s never was: the clock goes forward over it', $this->text('side')),
                'no-zone' => sprintf('an instant against a time of the %s without a zone', $this->text('side')),
                default => sprintf('the %s is not %s', $this->text('side'), $this->text('kind')),
            },
            CauseId::Rounding => $this->rounding(),
            CauseId::Scale => $this->scale(),
            CauseId::Truncated => isset($this->facts['characters'])
                ? sprintf('cut at %s', $this->counted('characters'))
                : sprintf('cut at %s', $this->counted('bytes')),
            CauseId::Offset => sprintf(
                '%s %s',
                ltrim($this->text('constant'), '-'),
                str_starts_with($this->text('constant'), '-') ? 'less' : 'more',
            ),
            CauseId::DateShift => $this->shift(),
            CauseId::Moved => sprintf('moved from %s to %s', $this->text('from'), $this->text('to')),
            CauseId::Encoding => $this->encoding(),
            CauseId::NearText => $this->nearText(),
            CauseId::Tolerance => $this->tolerance(),
            default => $id->meaning(),
        };
    }

    private function rounding(): string
    {
        $places = (int) ($this->facts['places'] ?? 0);

        return sprintf(
            'rounded or cut to %s',
            $places === 0 ? 'a whole number' : sprintf('%d decimal%s', $places, $places === 1 ? '' : 's'),
        );
    }

    private function scale(): string
    {
        $power = (int) substr($this->text('factor'), 3);

        return sprintf(
            '%s times too %s',
            abs($power) > 15 ? '10^'.abs($power) : number_format(10 ** abs($power)),
            $power > 0 ? 'large' : 'small',
        );
    }

    private function shift(): string
    {
        $zone = $this->text('zone');
        $seconds = (int) ($this->facts['seconds'] ?? (int) ($this->facts['days'] ?? 0) * 86_400);
        $amount = $this->duration(abs($seconds)).($seconds < 0 ? ' earlier' : ' later');

        if ($zone === '') {
            return $amount;
        }
        $forward = $seconds + (int) ($this->facts['clock_change'] ?? 0);
        $whileForward = $this->duration(abs($forward)).($forward < 0 ? ' earlier' : ' later');

        // Cells that have the same time on both sides are no findings: of them nothing is said.
        return match (true) {
            $seconds === 0 => "{$whileForward}, always while clocks are forward in {$zone}",
            $forward === 0 => "{$amount}, always while clocks are not forward in {$zone}",
            default => "{$amount}, and {$whileForward} while clocks are forward in {$zone}",
        };
    }

    private function duration(int $seconds): string
    {
        foreach (self::UNITS as $unit => $length) {
            if ($seconds >= $length && $seconds % $length === 0) {
                $count = intdiv($seconds, $length);

                return $count === 1 ? "one {$unit}" : number_format($count)." {$unit}s";
            }
        }

        return '0 seconds';
    }

    private function encoding(): string
    {
        return isset($this->facts['lost_to'])
            ? sprintf('letters lost to %s in the %s', $this->text('lost_to'), $this->text('side'))
            : sprintf('UTF-8 read as %s in the %s', $this->text('read_as'), $this->text('side'));
    }

    private function nearText(): string
    {
        return 'letters '.str_replace('+', ' and ', $this->text('edit'));
    }

    private function tolerance(): string
    {
        return sprintf('within the declared tolerance, at most %s apart, %s in all', $this->text('largest'), $this->text('net'));
    }

    private function counted(string $unit): string
    {
        $count = (int) $this->facts[$unit];

        return number_format($count).' '.($count === 1 ? substr($unit, 0, -1) : $unit);
    }

    private function text(string $fact): string
    {
        return (string) ($this->facts[$fact] ?? '');
    }
}
