<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Excerpt;

/**
 * Which key went into which, to the end of the way: a key that went into one that went into a third is with the third. A key that is said
 * to have gone into two, or into itself by way of others, is refused with its names.
 */
final readonly class SurvivorMap
{
    /** @param array<string, list<string>> $survivors  canonical key => key of its survivor as the map writes it */
    private function __construct(private array $survivors) {}

    /**
     * @param  iterable<string, array{list<string>, list<string>}>  $entries  where it stands, in words => key, and key of its survivor
     * @param  list<CanonicalForm>  $ofKey
     * @param  list<CanonicalForm>  $ofSurvivor
     *
     * @throws UnusableStep
     */
    public static function of(iterable $entries, array $ofKey, array $ofSurvivor): self
    {
        $next = $places = $written = [];
        foreach ($entries as $place => [$key, $survivor]) {
            $from = self::canonical($key, $ofKey);
            $into = self::canonical($survivor, $ofSurvivor);
            if (trim($from, Batch::CELL_END) === '' || trim($into, Batch::CELL_END) === '' || $from === $into) {
                continue;
            }
            if (isset($next[$from]) && $next[$from] !== $into) {
                throw UnusableStep::because(sprintf(
                    '"%s" has two survivors: "%s" (%s) and "%s" (%s). Leave one of them out of the map.',
                    Excerpt::of(implode(' + ', $key)),
                    Excerpt::of(implode(' + ', $written[$from])),
                    $places[$from],
                    Excerpt::of(implode(' + ', $survivor)),
                    $place,
                ));
            }
            [$next[$from], $places[$from]] = [$into, $places[$from] ?? $place];
            $written[$from] ??= $survivor;
        }

        return new self(self::ends($next, $written));
    }

    /**
     * @param  string  $canonical  key of a row
     * @return list<string>|null the key of its survivor; null where it is not said to have gone into another
     */
    public function survivorOf(string $canonical): ?array
    {
        return $this->survivors[$canonical] ?? null;
    }

    /**
     * @param  list<string>  $key
     * @param  list<CanonicalForm>  $forms
     */
    public static function canonical(array $key, array $forms): string
    {
        $canonical = [];
        foreach ($key as $nth => $cell) {
            $canonical[] = $forms[$nth]->of($cell);
        }

        return implode(Batch::CELL_END, $canonical);
    }

    /**
     * @param  array<string, string>  $next
     * @param  array<string, list<string>>  $written
     * @return array<string, list<string>>
     *
     * @throws UnusableStep
     */
    private static function ends(array $next, array $written): array
    {
        $ends = [];
        foreach (array_keys($next) as $from) {
            $way = [];
            $last = (string) $from;
            for ($at = $last; isset($next[$at]); $at = $next[$at]) {
                if (isset($way[$at])) {
                    throw UnusableStep::because(sprintf(
                        'The map of survivors goes in a circle: %s. Leave one of these out of the map.',
                        implode(' into ', array_map(
                            static fn(int|string $key): string => '"'.Excerpt::of(implode(' + ', $written[$key])).'"',
                            array_keys($way),
                        )),
                    ));
                }
                $way[$at] = true;
                $last = $at;
            }
            $ends[$from] = $written[$last];
        }

        return $ends;
    }
}
