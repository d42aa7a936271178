<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\Tally;
use App\Models\TallyTotal;
use App\Queries\Review\Mask;
use Brick\Math\BigDecimal;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\Worth;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Totals\ControlTotal;

/**
 * What the totals, their shares and the worth of differences were in the tally before: what a new delivery, or another plan, did to each.
 *
 * @phpstan-type Change array{words: string, before: string, now: string, closer: string}
 */
final readonly class TotalsBefore
{
    /** @param array<string, TallyTotal> $totals by what they are */
    private function __construct(private ?Tally $earlier, private array $totals) {}

    public static function of(Tally $tally): self
    {
        $earlier = Tally::query()->where('dataset_id', $tally->dataset_id)->where('number', $tally->number - 1)->with('patterns')->first();
        $totals = [];
        foreach ($earlier === null ? [] : TallyTotal::query()->where('tally_id', $earlier->id)->get()->all() as $total) {
            $totals[CanonicalJson::of($total->total()->toArray())] = $total;
        }

        return new self($earlier, $totals);
    }

    /** @return array{tally: int, difference: string|null}|null */
    public function ofTotal(ControlTotal $total): ?array
    {
        $before = $this->totals[CanonicalJson::of($total->toArray())] ?? null;

        return $before === null ? null : ['tally' => $this->earlier->number ?? 0, 'difference' => $before->figures['difference']];
    }

    /**
     * What the shares of a total came to: of patterns by their words, for their numbers are of one tally alone.
     *
     * @return array<string, string> by the words of the share
     */
    public function sharesOf(ControlTotal $total): array
    {
        $before = $this->totals[CanonicalJson::of($total->toArray())] ?? null;
        $patterns = self::patterns($this->earlier);
        $shares = [];
        foreach ($before->figures['shares'] ?? [] as $share) {
            $number = (int) (explode(' ', $share['name'], 2)[1] ?? 0);
            $shares[TotalWords::share($share['name'], $patterns[$number] ?? '')] = $share['net'];
        }

        return $shares;
    }

    /**
     * @param  iterable<TallyTotal>  $totals  of the tally itself
     * @return array{tally: int, totals: list<Change>, worth: list<Change>}|null what changed; null without a tally before
     */
    public function changes(Tally $tally, iterable $totals, Mask $mask): ?array
    {
        if ($this->earlier === null) {
            return null;
        }
        $changed = [];
        foreach ($totals as $total) {
            $before = $this->ofTotal($total->total())['difference'] ?? null;
            $now = $total->figures['difference'];
            if ($before !== null && $now !== null && ! $mask->hidesTotal($total->total())) {
                $changed[] = self::change($total->total()->sentence(), $before, $now);
            }
        }
        $worth = [];
        $netBefore = self::net($this->earlier);
        foreach (self::net($tally) + array_map(static fn(): string => '0', $netBefore) as $column => $now) {
            if (! $mask->hides((string) $column)) {
                $worth[] = self::change((string) $column, $netBefore[$column] ?? '0', $now);
            }
        }
        $isOne = static fn(array $change): bool => $change['before'] !== $change['now'];

        return [
            'tally' => $this->earlier->number,
            'totals' => array_values(array_filter($changed, $isOne)),
            'worth' => array_values(array_filter($worth, $isOne)),
        ];
    }

    /** @return array<int, string> by number: why its cells differ */
    public static function patterns(?Tally $tally): array
    {
        $words = [];
        foreach ($tally->patterns ?? [] as $pattern) {
            $words[$pattern->number] = CauseId::sentenceFor($pattern->cause, $pattern->facts);
        }

        return $words;
    }

    /** @return Change with one number of decimal places; closer is how much nearer to nought it came */
    private static function change(string $words, string $before, string $now): array
    {
        [$was, $is] = [BigDecimal::of(self::number($before)), BigDecimal::of(self::number($now))];
        $places = max($was->getScale(), $is->getScale());
        $closer = $was->abs()->minus($is->abs());

        return [
            'words' => $words,
            'before' => (string) $was->toScale($places),
            'now' => (string) $is->toScale($places),
            'closer' => (string) $closer->toScale($places),
        ];
    }

    /** @return array<string, string> by column of the source: what the differences of its cells come to together */
    private static function net(Tally $tally): array
    {
        $worth = [];
        foreach ($tally->patterns as $pattern) {
            if ($pattern->worth !== null) {
                $column = $pattern->source_column;
                $worth[$column] = ($worth[$column] ?? Worth::none())->plus(Worth::fromArray($pattern->worth));
            }
        }

        return array_map(static fn(Worth $of): string => (string) $of->net(), $worth);
    }

    /** @return numeric-string */
    private static function number(string $written): string
    {
        return is_numeric($written) ? $written : '0';
    }
}
