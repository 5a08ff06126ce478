import { grouped } from '@emery/core/quantity';
import { Button, Spin } from 'antd';

interface Listed {
  isPending: boolean;
  error: Error | null;
  hasNextPage: boolean;
  isFetchingNextPage: boolean;
  fetchNextPage: () => Promise<unknown>;
  refetch: () => Promise<unknown>;
}

/** What stands under a list that comes a page at a time: that it is on its way, why it is not, and the way to more. */
export function MoreButton({ list, left }: { list: Listed; left: number }) {
  if (list.error)
    return (
      <p className="finding is-fault" role="alert">
        <strong>The list could not be loaded.</strong> {list.error.message}{' '}
        <Button onClick={() => void list.refetch()}>Try again</Button>
      </p>
    );
  if (list.isPending) return <Spin className="page-spin" />;
  if (!list.hasNextPage) return null;
  return (
    <Button block loading={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
      Show more ({grouped(left)} left)
    </Button>
  );
}
