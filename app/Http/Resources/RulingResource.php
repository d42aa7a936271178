<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Ruling;
use App\Models\RulingScope;
use App\Queries\Review\Mask;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Ruling $resource */
final class RulingResource extends JsonResource
{
    public static $wrap = null;

    private ?Mask $mask = null;

    /** Values that an act names are those of cells and keys. */
    public function masked(Mask $mask): self
    {
        $this->mask = $mask;

        return $this;
    }

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $act = $this->resource;

        return [
            'id' => $act->id,
            'scope' => $act->scope->value,
            'target' => match ($act->scope->value) {
                'pattern' => (string) $act->pattern_number,
                'class' => (string) $act->row_class,
                'undo' => (string) $act->undoes_id,
                'selection', 'filter' => '',
                default => (string) $act->sequence,
            },
            'filter' => $act->scope === RulingScope::Filter ? (object) ($this->mask?->terms($act->filter ?? []) ?? $act->filter) : null,
            'decision' => $act->decision?->value,
            'reason' => $act->reason,
            'ticket' => $act->ticket,
            'asked' => $act->asked?->name,
            'holdsUpTo' => $act->holds_up_to,
            'holdsFor' =>
                $this->mask?->hidesAnything() === true && $act->holds_for !== null
                    ? array_map(static fn(array $pair): array => ['source' => Mask::VALUE, 'target' => Mask::VALUE], $act->holds_for)
                    : $act->holds_for,
            'findings' => $act->findings,
            'person' => $act->user->name,
            'at' => $act->created_at->toIso8601ZuluString(),
        ];
    }
}
