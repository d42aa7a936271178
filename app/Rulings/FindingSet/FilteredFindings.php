<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Rulings\GroupKind;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use NineTally\Core\Comparison\RowClass;

/**
 * The findings that a filter means, as a query on their table under the name "f", and nothing joined that the filter does not ask for: to
 * cells with a part of the key their rows, under the name "k".
 * Column pair, cause and class of cells are facts of patterns: they become the numbers of the patterns, which are few.
 */
final readonly class FilteredFindings
{
    public function __construct(private Connection $database, private RuledFindings $ruled, private RowsOfGroup $group) {}

    /** @param bool $isStreamed whether a stretch of them is wanted, in the order of the list, rather than all */
    public function query(Tally $tally, Filter $filter, bool $isStreamed = false): Builder
    {
        $query = $this->withoutText($tally, $filter, $isStreamed);
        $text = $filter->text('text');
        if ($text === null) {
            return $query;
        }
        if (! $filter->isOfCells) {
            // The cells of a row stand as JSON, where some characters are written otherwise.
            $inJson = substr(json_encode($text, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES), 1, -1);

            return $query->where(
                fn(Builder $any) => $inJson === $text
                    ? $this->contains($any, $text, 'f.key', 'f.refused_text', 'f.source_cells::text', 'f.target_cells::text')
                    : $this->contains(
                        $this->contains($any, $text, 'f.key', 'f.refused_text'),
                        $inJson,
                        'f.source_cells::text',
                        'f.target_cells::text',
                    ),
            );
        }

        return $query->where(
            fn(Builder $any) => $this->contains($any, $text, 'f.source_value', 'f.target_value')->orWhereExists(
                fn(Builder $row) => $row
                    ->selectRaw('1')
                    ->from('row_findings AS tk')
                    ->whereColumn('tk.tally_id', 'f.tally_id')
                    ->whereColumn('tk.sequence', 'f.row_sequence')
                    ->where(fn(Builder $key) => $this->contains($key, $text, 'tk.key')),
            ),
        );
    }

    /**
     * The same findings in branches whose union is meant, for who wants them all: a text that stands in values or in keys is looked for in
     * each table by itself, which the database can do with all its processors.
     *
     * @return non-empty-list<Builder>
     */
    public function branches(Tally $tally, Filter $filter): array
    {
        $text = $filter->text('text');
        if ($text === null || ! $filter->isOfCells) {
            return [$this->query($tally, $filter)];
        }

        return [
            $this->withoutText($tally, $filter)->where(
                fn(Builder $any) => $this->contains($any, $text, 'f.source_value', 'f.target_value'),
            ),
            $this->withoutText($tally, $filter)
                ->join(
                    'row_findings AS tk',
                    static fn(JoinClause $join) => $join->on('tk.tally_id', 'f.tally_id')->on('tk.sequence', 'f.row_sequence'),
                )
                ->where(fn(Builder $any) => $this->contains($any, $text, 'tk.key')),
        ];
    }

    /**
     * Where all findings of the filter stand in the order of its list, as "place".
     *
     * @return non-empty-list<Builder> branches whose union is meant
     */
    public function places(Tally $tally, Filter $filter): array
    {
        $order = $this->order($filter);
        return array_map(static fn(Builder $branch): Builder => $branch->selectRaw("{$order} AS place"), $this->branches($tally, $filter));
    }

    private function withoutText(Tally $tally, Filter $filter, bool $isStreamed = false): Builder
    {
        $query = $this->database->table($filter->isOfCells ? 'cell_findings AS f' : 'row_findings AS f')->where('f.tally_id', $tally->id);
        $sequences = $filter->sequences();
        if ($sequences !== null) {
            $query->whereRaw('f.sequence = ANY(?::bigint[])', ['{'.implode(',', $sequences).'}']);
        }
        $filter->isOfCells ? $this->cells($query, $tally, $filter, $isStreamed) : $this->rows($query, $tally, $filter, $isStreamed);

        return $query;
    }

    /**
     * What a ruling on the filter covers: cells, or rows, and of changed rows the cells that are meant.
     *
     * @return array<value-of<GroupKind>, non-empty-list<Builder>> branches whose union is meant, by the kind of their groups
     */
    public function ruledOn(Tally $tally, Filter $filter): array
    {
        if ($filter->isOfCells) {
            return [GroupKind::Pattern->value => $this->branches($tally, $filter)];
        }
        $cells = $this->database->table('cell_findings AS f')->where('f.tally_id', $tally->id)
            ->whereIn('f.row_sequence', $this->query($tally, $filter)->where('f.class', RowClass::Changed->value)->select('f.sequence'));
        $this->ruled->narrow($cells, 'f', GroupKind::Pattern, $tally, $filter);

        return [
            GroupKind::RowClass->value => [$this->query($tally, $filter)->where('f.class', '!=', RowClass::Changed->value)],
            GroupKind::Pattern->value => [$cells],
        ];
    }

    /** By what the list of a filter is in order: of one class or pattern the place in it, else the place among all. */
    public function order(Filter $filter): string
    {
        return match (true) {
            $filter->isOfCells && $filter->number('pattern') !== null => 'f.pattern_ordinal',
            ! $filter->isOfCells && $filter->text('class') !== null => 'f.class_ordinal',
            default => 'f.sequence',
        };
    }

    private function cells(Builder $query, Tally $tally, Filter $filter, bool $isStreamed): void
    {
        $patterns = $this->patterns($tally, $filter);
        if ($patterns !== null) {
            count($patterns) === 1
                ? $query->where('f.pattern_number', $patterns[0])
                : $query->whereIntegerInRaw('f.pattern_number', $patterns);
        }
        foreach (['source' => 'f.source_value', 'target' => 'f.target_value'] as $side => $column) {
            if ($filter->text($side) !== null) {
                $query->where($column, $filter->text($side));
            }
        }
        $this->difference($query, $filter);
        if ($filter->text('key') !== null || $filter->asksForRows()) {
            $query->join(
                'row_findings AS k',
                static fn(JoinClause $join) => $join->on('k.tally_id', 'f.tally_id')->on('k.sequence', 'f.row_sequence'),
            );
            $this->key($query, 'k', $filter);
            $this->row($query, 'k', $tally, $filter);
        }
        $this->ruled->narrow($query, 'f', GroupKind::Pattern, $tally, $filter, $isStreamed);
    }

    private function difference(Builder $query, Filter $filter): void
    {
        $sign = ['some' => '<>', 'up' => '>', 'down' => '<', 'nought' => '='][$filter->text('difference') ?? ''] ?? null;
        if ($sign !== null) {
            $query->where('f.difference', $sign, 0);
        }
        if ($filter->text('atLeast') !== null) {
            $query->whereRaw('abs(f.difference) >= ?::numeric', [$filter->text('atLeast')]);
        }
    }

    private function rows(Builder $query, Tally $tally, Filter $filter, bool $isStreamed): void
    {
        if ($filter->text('class') !== null) {
            $query->where('f.class', $filter->text('class'));
        }
        $this->key($query, 'f', $filter);
        $this->row($query, 'f', $tally, $filter);
        if ($filter->followsRulings()) {
            $this->ruled->rows($query, $tally, $filter, $isStreamed);
        }
    }

    private function row(Builder $query, string $table, Tally $tally, Filter $filter): void
    {
        if ($filter->number('total') !== null) {
            $this->group->narrow($query, $table, $tally, $filter);
        }
        if ($filter->text('reason') !== null) {
            $query->where("{$table}.reason", $filter->text('reason'));
        }
        if ($filter->number('part') !== null) {
            $query->where("{$table}.{$filter->text('side')}_part", $filter->number('part'));
        } elseif ($filter->text('side') !== null) {
            $query->where("{$table}.side", $filter->text('side'));
        }
        if ($filter->text('bridged') !== null) {
            $query->where("{$table}.is_bridged", true);
        }
        RowColumn::narrow($query, $table, $tally, $filter);
    }

    private function key(Builder $query, string $table, Filter $filter): void
    {
        $key = $filter->text('key');
        $place = $filter->number('keyColumn');
        if ($key === null || $place === null) {
            return;
        }
        // The place stands in the text of the query, so that the index of that place is found.
        $query->whereRaw("\"left\"(key_cell({$table}.key, {$place}), 100) = \"left\"(?, 100)", [$key]);
        if (mb_strlen($key) >= 100) {
            $query->whereRaw("key_cell({$table}.key, {$place}) = ?", [$key]);
        }
    }

    /** How many cells the patterns have that the filter means. */
    public function cellsOfPatterns(Tally $tally, Filter $filter): int
    {
        return (int) $tally->patterns()->where($this->termsOfPatterns($filter))->sum('cells');
    }

    /** @return list<int>|null numbers of the patterns that the filter means; null for all */
    public function patterns(Tally $tally, Filter $filter): ?array
    {
        $terms = $this->termsOfPatterns($filter);
        $pattern = $filter->number('pattern');
        if (count($terms) === ($pattern === null ? 0 : 1)) {
            return $pattern === null ? null : [$pattern];
        }
        $numbers = $this->database
            ->table('patterns')
            ->where('tally_id', $tally->id)
            ->where($terms)
            ->orderBy('number')
            ->select('number')
            ->get();

        return array_values($numbers->map(static fn(\stdClass $row): int => DatabaseRow::of($row)->int('number'))->all());
    }

    /** @return array<string, string|int> what the filter asks of patterns, by column of their table */
    private function termsOfPatterns(Filter $filter): array
    {
        return array_filter(
            [
                'pair_id' => $filter->text('pair'),
                'cause' => $filter->text('cause'),
                'class' => $filter->text('cellClass'),
                'number' => $filter->number('pattern'),
            ],
            static fn(string|int|null $term): bool => $term !== null,
        );
    }

    /**
     * Any of the expressions contains the text; capitals do not count. To fold the capitals of all alphabets costs most of the time: so all
     * expressions are sifted as one text by the longest part of what is looked for that has no letters, or with only the capitals of ASCII
     * folded, and what passes is
     * looked at closely.
     */
    private function contains(Builder $any, string $text, string ...$expressions): Builder
    {
        $closely = implode(' OR ', array_map(static fn(string $expression): string => "{$expression} ILIKE ?", $expressions));
        $like = array_fill(0, count($expressions), $this->like($text));
        $joined = implode(' || ', array_map(static fn(string $expression): string => "coalesce({$expression}, '')", $expressions));
        [$plain, $folded] = [
            $this->longestRun('/[\x00-\x40\x5B-\x60\x7B-\x7F]+/', $text),
            strtolower($this->longestRun('/[\x00-\x7F]+/', $text)),
        ];

        return match (true) {
            strlen($plain) > 1 => $any->orWhereRaw("CASE WHEN strpos({$joined}, ?) > 0 THEN {$closely} ELSE false END", [$plain, ...$like]),
            $folded !== '' => $any->orWhereRaw("CASE WHEN strpos(lower(({$joined}) COLLATE \"C\"), ?) > 0 THEN {$closely} ELSE false END", [
                $folded,
                ...$like,
            ]),
            default => $any->orWhereRaw("({$closely})", $like),
        };
    }

    private function longestRun(string $characters, string $text): string
    {
        preg_match_all($characters, $text, $runs);
        usort($runs[0], static fn(string $one, string $other): int => strlen($other) <=> strlen($one));

        return $runs[0][0] ?? '';
    }

    private function like(string $text): string
    {
        return '%'.str_replace(['\\', '%', '_'], ['\\\\', '\%', '\_'], $text).'%';
    }
}
