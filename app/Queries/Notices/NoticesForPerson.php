<?php

declare(strict_types=1);

namespace App\Queries\Notices;

use App\Models\Notice;
use App\Models\NoticeChoice;
use App\Models\NoticeKind;
use App\Models\User;

/** What a person is told of, as they chose, in the migrations that they belong to. */
final readonly class NoticesForPerson
{
    private const TOLD = 50;

    /** @return list<array{id: int, kind: string, said: string, link: string, dataset: string, at: string}> the newest first */
    public function of(User $person): array
    {
        $wanted = array_map(static fn(array $choice): string => $choice['kind'], array_filter(
            $this->choices($person),
            static fn(array $choice): bool => $choice['inApplication'],
        ));

        return array_values(
            Notice::query()
                ->with('dataset')
                ->whereIn('kind', $wanted)
                ->whereHas(
                    'dataset',
                    static fn($datasets) => $datasets->whereIn('migration_id', $person->memberships()->select('migration_id')),
                )
                ->orderByDesc('id')
                ->limit(self::TOLD)
                ->get()
                ->map(
                    static fn(Notice $notice): array => [
                        'id' => $notice->id,
                        'kind' => $notice->kind->value,
                        'said' => $notice->said,
                        'link' => $notice->link,
                        'dataset' => $notice->dataset->name,
                        'at' => $notice->created_at->toIso8601ZuluString(),
                    ],
                )
                ->all(),
        );
    }

    /** @return list<array{kind: string, words: string, inApplication: bool, byMail: bool}> of all kinds */
    public function choices(User $person): array
    {
        $chosen = NoticeChoice::query()
            ->where('user_id', $person->id)
            ->get()
            ->keyBy(static fn(NoticeChoice $choice): string => $choice->kind->value);

        return array_map(static fn(NoticeKind $kind): array => [
            'kind' => $kind->value,
            'words' => $kind->words(),
            'inApplication' => $chosen->get($kind->value)->in_application ?? $kind->isToldUnasked(),
            'byMail' => $chosen->get($kind->value)->by_mail ?? false,
        ], NoticeKind::cases());
    }
}
