<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Objects;

/** Walks a JSON text token by token, block by block, and knows at which path it stands. Holds what has not been asked for longer. */
final class JsonPlaces
{
    private const TOKEN = '/"(?:[^"\\\\]|\\\\.)*+"|[{}\[\]":,]/s';

    /** Objects and lists in one another; what stands deeper is no place of a list of records. */
    private const MOST_DEPTH = 200;

    /** @var list<array{string, string|null}> of each open object or list: its bracket, and the name of the member it is in */
    private array $open = [];

    /** A string that may turn out to be the name of a member. */
    private string $string = '';

    /**
     * Where lists stand in the beginning of a text whose first element is an object.
     *
     * @return list<string> paths from the outermost object, such as "register.berths"; in the order of the text
     */
    public static function ofLists(string $beginning): array
    {
        $places = new self;
        $found = [];
        $at = 0;
        while (($token = $places->next($beginning, $at)) !== null && $places->depth() < self::MOST_DEPTH) {
            $isFirst = trim(substr($beginning, $at, $token[1] - $at - 1)) === '';
            [$letter, $at] = $token;
            $isInList = count($places->open) > 1 && $places->open[count($places->open) - 2][0] === '[';
            $isOnlyList = count(array_filter($places->open, static fn(array $one): bool => $one[0] === '[')) === 1;
            if ($letter === '{' && $isInList && $isOnlyList && $isFirst) {
                $found[$places->path()] = true;
            }
        }

        return array_map(strval(...), array_keys($found));
    }

    /**
     * The next bracket of the text; names of members are taken in on the way.
     *
     * @return array{string, int}|null the bracket and the place after it; null when the text has no more whole tokens
     */
    public function next(string $text, int $at): ?array
    {
        while (preg_match(self::TOKEN, $text, $found, PREG_OFFSET_CAPTURE, $at) === 1 && $found[0][0] !== '"') {
            [$token, $place] = $found[0];
            $at = $place + strlen($token);
            switch ($token[0]) {
                case '"':
                    $this->string = $token;
                    break;
                case ':':
                    $name = json_decode($this->string);
                    if ($this->open !== []) {
                        $this->open[count($this->open) - 1][1] = is_string($name) ? $name : '';
                    }
                    break;
                case '{':
                case '[':
                    $this->open[] = [$token, null];

                    return [$token, $at];
                case '}':
                case ']':
                    array_pop($this->open);

                    return [$token, $at];
            }
        }

        return null;
    }

    public function isTooDeep(): bool
    {
        return count($this->open) > self::MOST_DEPTH;
    }

    public function depth(): int
    {
        return count($this->open);
    }

    /** @return string names of the members that are open, joined by dots */
    public function path(): string
    {
        return implode('.', array_filter(array_column($this->open, 1), static fn(?string $name): bool => $name !== null));
    }
}
