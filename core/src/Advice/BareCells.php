<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** What cells are likely to be whatever form they are written in, remembered for values that were seen lately. */
final class BareCells
{
    private const MEMO = 20_000;

    /** @var array<string, string> */
    private array $memo = [];

    /**
     * @param  list<string>  $cells
     * @param  array<int>  $places  of those that are wanted
     * @return array<int, string> by place
     */
    public function of(array $cells, array $places): array
    {
        $bare = [];
        foreach ($places as $place) {
            $bare[$place] = $this->one($cells[$place]);
        }

        return $bare;
    }

    public function one(string $cell): string
    {
        if (isset($this->memo[$cell])) {
            return $this->memo[$cell];
        }
        if (count($this->memo) === self::MEMO) {
            $this->memo = [];
        }

        return $this->memo[$cell] = LikelyValue::bare($cell);
    }
}
