<?php

declare(strict_types=1);

namespace Tests\Support;

use App\Actions\Tally\WriteTallyFolder;
use App\Models\Tally;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Tally\Workspace;

/**
 * What the command line computes from the folder of a tally, and what the API answers about it: each figure on a screen names its place in
 * one of them. Of a place with parts, every number of the sentence must stand in some part.
 */
final class ComputedFigures
{
    private const OF_THE_ENGINE = [
        'rows', 'cells', 'values', 'columns', 'patterns', 'key_forgiven', 'keys', 'reasons', 'bridged', 'parts', 'rows_arrived',
        'right_of_arrived', 'steps', 'warnings', 'totals', 'records',
    ];

    /** @var array<int, array<array-key, mixed>> by tally: neither it nor what it is made of ever changes */
    private static array $computed = [];

    /** @var array<array-key, mixed> */
    private array $engine;

    /** @var array<string, mixed> */
    private array $answers = [];

    /** @param \Closure(string): mixed $ask what the API answers, by the first name of a path */
    public function __construct(private readonly Tally $tally, private readonly \Closure $ask)
    {
        $this->engine = self::$computed[$tally->id] ??= self::compute($tally);
    }

    /** @return array<array-key, mixed> */
    private static function compute(Tally $tally): array
    {
        $workspace = Workspace::make();
        $folder = "{$workspace->path}/tally";
        app(WriteTallyFolder::class)($tally, $folder);
        exec(
            sprintf('php %s tally --from=%s --json 2>/dev/null', escapeshellarg(base_path('core/bin/nine-tally')), escapeshellarg($folder)),
            $lines,
        );
        $workspace->remove();
        $result = json_decode(implode("\n", $lines), true, 64, JSON_THROW_ON_ERROR);

        return is_array($result) ? $result : [];
    }

    /** Why the text cannot be what is computed; null if it is. */
    public function complaint(string $name, string $text): ?string
    {
        if ($name === 'sentence') {
            return in_array($text, $this->sentences(), true) ? null : "the engine never said \"{$text}\"";
        }
        try {
            $places = array_map($this->at(...), explode(' + ', $name));
        } catch (\OutOfBoundsException $unknown) {
            return "{$name} of tally {$this->tally->number}: {$unknown->getMessage()}";
        }
        if (count($places) === 1 && is_array($places[0])) {
            $known = $this->numbers((string) json_encode($places[0], JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE));
            $other = array_diff($this->numbers($text), $known);

            return $other === [] ? null : "{$name} says \"{$text}\", and ".implode(', ', $other).' stands nowhere in it';
        }
        $computed =
            count($places) === 1 && is_string($places[0]) ? $places[0] : number_format(array_sum(array_filter($places, is_int(...))));

        return $text === $computed || ($text === 'none' && $computed === '0')
            ? null
            : "{$name} says \"{$text}\", computed is \"{$computed}\"";
    }

    private function at(string $name): mixed
    {
        $path = array_map(rawurldecode(...), explode('/', $name));
        $place = in_array($path[0], self::OF_THE_ENGINE, true) ? $this->engine : [$path[0] => $this->answer($path[0])];
        $list = '';
        while ($path !== []) {
            $step = array_shift($path);
            if (! is_array($place)) {
                throw new \OutOfBoundsException("nothing has \"{$step}\"");
            }
            $place = match (true) {
                // A pattern is named by its number, not by where it stands in the list.
                $list === 'patterns' && ctype_digit($step) => $this->named($place, $step, $path),
                array_key_exists($step, $place) => $place[$step],
                $step === 'length' => count($place),
                // Nothing of a kind was found, so it is not in the list.
                $place === [] => 0,
                default => $this->named($place, $step, $path),
            };
            $list = $step;
        }

        return $place;
    }

    /**
     * A column, pattern or class of a list, by its name; a pattern by its sentence too.
     *
     * @param  array<array-key, mixed>  $list
     * @param  list<string>  $path
     */
    private function named(array $list, string $name, array &$path): mixed
    {
        foreach ($list as $one) {
            if (! is_array($one)) {
                continue;
            }
            $isIt = in_array($name, [$one['source'] ?? null, $one['name'] ?? null, $one['class'] ?? null], true);
            $sentence =
                $one['sentence'] ?? (isset($one['cause']) && is_string($one['cause']) ? CauseId::sentenceFor($one['cause'], []) : null);
            if (is_int($one['number'] ?? null) ? (string) $one['number'] === $name : $isIt) {
                if ($sentence === null || ! isset($one['source']) || is_int($one['number'] ?? null)) {
                    return $one;
                }
                if ($sentence === ($path[0] ?? null)) {
                    array_shift($path);

                    return $one;
                }
            }
        }
        throw new \OutOfBoundsException("there is no \"{$name}\"");
    }

    /** @return list<string> of patterns, of what the key forgives and of steps */
    private function sentences(): array
    {
        $sentences = [];
        $lists = [$this->engine['patterns'], $this->engine['key_forgiven'], ...array_values((array) $this->engine['steps'])];
        foreach (array_merge(...array_filter($lists, is_array(...))) as $one) {
            $cause = is_array($one) && is_string($one['cause'] ?? null) ? $one['cause'] : '';
            $sentences[] = is_array($one) && is_string($one['sentence'] ?? null) ? $one['sentence'] : CauseId::sentenceFor($cause, []);
        }

        return $sentences;
    }

    private function answer(string $about): mixed
    {
        return $this->answers[$about] ??= ($this->ask)($about);
    }

    /** @return list<string> */
    private function numbers(string $text): array
    {
        // Sizes are rounded.
        $text = (string) preg_replace('/\d+(\.\d)? (bytes?|[KMGT]B)/', '', $text);
        preg_match_all('/\d+(?:,\d{3})*(?:\.\d+)?/', $text, $found);

        return array_map(static fn(string $number): string => str_replace(',', '', $number), $found[0]);
    }
}
