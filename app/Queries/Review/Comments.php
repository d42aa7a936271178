<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Comment;
use App\Models\Tally;
use App\Models\User;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use NineTally\Core\Plan\CanonicalJson;

/** What is said about a finding, a pattern or a row class, in this tally and in those before. */
final readonly class Comments
{
    public function __construct(private Connection $database) {}

    /**
     * By what the subject is known again in later tallies.
     *
     * @param  string  $kind  cell, row, pattern or class
     * @param  string  $target  a sequence, a pattern's number or a row class
     */
    public function subject(Tally $tally, string $kind, string $target): string
    {
        return match ($kind) {
            'class' => "class:{$target}",
            'pattern' => $this->pattern($tally, (int) $target),
            default => $this->finding($tally, $kind === 'cell' ? 'cell_findings' : 'row_findings', (int) $target),
        };
    }

    /** @return list<array{id: int, tally: int, text: string, person: string, at: string, mentioned: list<string>}> the oldest first */
    public function about(Tally $tally, string $subject): array
    {
        $comments = Comment::query()
            ->with(['user', 'tally', 'mentioned'])
            ->where('dataset_id', $tally->dataset_id)
            ->where('subject', $subject)
            ->orderBy('id')
            ->get();

        return array_values($comments->map(self::view(...))->all());
    }

    /** @return array{id: int, tally: int, text: string, person: string, at: string, mentioned: list<string>} */
    public static function view(Comment $comment): array
    {
        return [
            'id' => $comment->id,
            'tally' => $comment->tally->number,
            'text' => $comment->text,
            'person' => $comment->user->name,
            'at' => $comment->created_at->toIso8601ZuluString(),
            'mentioned' => array_values($comment->mentioned->map(static fn(User $person): string => $person->name)->all()),
        ];
    }

    private function pattern(Tally $tally, int $number): string
    {
        $pattern = $tally->patterns()->where('number', $number)->firstOrFail();

        return 'pattern:'.CanonicalJson::of([$pattern->pair_id, $pattern->class->value, $pattern->cause, $pattern->facts]);
    }

    private function finding(Tally $tally, string $table, int $sequence): string
    {
        $finding = $this->database
            ->table($table)
            ->where('tally_id', $tally->id)
            ->where('sequence', $sequence)
            ->selectRaw("encode(identity, 'hex') AS identity")
            ->first();

        return $finding === null ? throw new ModelNotFoundException : 'finding:'.DatabaseRow::of($finding)->text('identity');
    }
}
