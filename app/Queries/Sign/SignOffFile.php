<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Signature;
use App\Models\SignedState;
use App\Models\Tally;
use App\Problems\Conflict;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Report\CsvLine;

/**
 * What was signed of a tally, and by whom, as a file: made of the kept document and the acts alone, so that it has the same bytes whenever
 * it is taken.
 */
final readonly class SignOffFile
{
    /**
     * @param  array<string, mixed>  $document  that was signed last
     * @param  list<array<string, mixed>>  $acts
     */
    private function __construct(private array $document, private array $acts) {}

    /** @throws Conflict where nobody has signed */
    public static function of(Tally $tally): self
    {
        $tally->load('signatures.user');
        $last = $tally->signatures->whereNotNull('digest')->last();
        if ($last === null) {
            throw Conflict::because('not-signed', "Nobody has signed tally {$tally->number}, so there is no sign-off to take away.");
        }
        /** @var array<string, mixed> $document */
        $document = json_decode(SignedState::query()->findOrFail($last->digest)->content, true, 64, JSON_THROW_ON_ERROR);

        return new self($document, array_values($tally->signatures->map(static fn(Signature $one): array => [
            'act' => $one->act->value,
            'person' => $one->user->name,
            'role' => $one->role->value,
            'method' => $one->method,
            'words' => $one->words,
            'reason' => $one->reason,
            'digest' => $one->digest,
            'at' => $one->created_at->toIso8601ZuluString(),
        ])->all()));
    }

    /** Canonical JSON (RFC 8785). */
    public function json(): string
    {
        return CanonicalJson::of(['document' => $this->document, 'acts' => $this->acts]);
    }

    /** A line for each figure, limit and act (CSV, RFC 4180): what it is of, its name, and what it says. */
    public function csv(): string
    {
        $lines = [['of', 'name', 'value', 'worst', 'state', 'remark']];
        foreach (array_diff_key($this->document, ['limits' => true, 'signatures' => true]) as $name => $part) {
            foreach (self::flat($name, $part) as $path => $value) {
                $lines[] = ['figure', $path, $value, '', '', ''];
            }
        }
        foreach (is_array($this->document['limits'] ?? null) ? $this->document['limits'] : [] as $limit) {
            $said = is_array($limit) ? $limit : [];
            $lines[] = [
                'limit', self::text($said['words'] ?? ''), self::text($said['shown'] ?? ''), self::text($said['worst'] ?? ''),
                self::text($said['state'] ?? ''),
                is_array($said['waiver'] ?? null) ? 'waived: '.self::text($said['waiver']['reason'] ?? '') : '',
            ];
        }
        foreach ($this->acts as $act) {
            $lines[] = [
                'act', self::text($act['act']), self::text($act['person']), self::text($act['role']), self::text($act['at']),
                self::text($act['reason'] === '' ? $act['digest'] : $act['reason']),
            ];
        }

        return implode('', array_map(CsvLine::of(...), $lines));
    }

    /** @return array<string, string> by the path */
    private static function flat(string $path, mixed $part): array
    {
        if (! is_array($part)) {
            return [$path => self::text($part)];
        }
        $flat = [];
        foreach ($part as $name => $inner) {
            $flat += self::flat("{$path} {$name}", $inner);
        }

        return $flat;
    }

    private static function text(mixed $value): string
    {
        return match (true) {
            is_bool($value) => $value ? 'true' : 'false',
            is_scalar($value) => (string) $value,
            default => '',
        };
    }
}
